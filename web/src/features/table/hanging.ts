// Where pages hang under the tape: each on a straight thread from its day, in as few rows as there is room for.

/** A page to hang: its picture's size and the width of what is written under it, in pixels, and where its day is on the tape. */
export type Card = { id: string; picture: number; height: number; text: number; day: number };

/** Where it hangs: its left edge, its thread, and the row. */
export type Hung = { id: string; left: number; thread: number; row: number };

/** Between two pages of a row. */
const GAP = 14;
/** A thread keeps so far from the pages that it passes. */
const CLEAR = 5;
/** A thread ends so far within its page's picture. */
const CLIP = 12;
const STEP = 6;
/** A thread goes no further aside than this. */
const MOST_ASIDE = 200;
/** A further row is worth a thread that goes aside by a third of this. */
const A_ROW = 300;

type Span = { from: number; to: number; thread: number; row: number };

const spanOf = (card: Card, left: number) => ({ from: left, to: left + Math.max(card.picture, card.text) });

/** The thread that leads to a page there: as straight from its day as the picture allows. */
function threadOf(card: Card, left: number): number {
  return Math.min(Math.max(card.day, left + CLIP), left + card.picture - CLIP);
}

function isFree(hung: readonly Span[], { from, to, thread, row }: Span): boolean {
  return hung.every((other) => {
    if (other.row === row) return from >= other.to + GAP || to + GAP <= other.from;
    // The thread of the lower one passes the upper one.
    const [upper, passing] = other.row < row ? [other, thread] : [{ from, to }, other.thread];
    return passing < upper.from - CLEAR || passing > upper.to + CLEAR;
  });
}

/** Hangs pages between two edges, the first ones highest. What finds no room in so many rows is left over. */
export function hang(cards: readonly Card[], width: number, rows: number): { hung: Hung[]; left: string[] } {
  const hung: (Hung & Span)[] = [];
  const over: string[] = [];
  for (const card of cards) {
    let best: (Hung & Span) | undefined;
    let least = Number.POSITIVE_INFINITY;
    const wide = Math.max(card.picture, card.text);
    for (let row = 0; row < rows; row++) {
      for (let left = 0; left + wide <= width; left += STEP) {
        const thread = threadOf(card, left);
        const price = Math.abs(thread - card.day) * 3 + Math.abs(left + card.picture / 2 - card.day) / 4 + row * A_ROW;
        if (price >= least || Math.abs(thread - card.day) > MOST_ASIDE) continue;
        const there = { id: card.id, left, thread, row, ...spanOf(card, left) };
        if (isFree(hung, there)) {
          best = there;
          least = price;
        }
      }
    }
    if (best) hung.push(best);
    else over.push(card.id);
  }
  return { hung: hung.map(({ id, left, thread, row }) => ({ id, left, thread, row })), left: over };
}
