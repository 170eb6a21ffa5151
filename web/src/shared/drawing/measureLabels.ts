// Where the labels of a measured block stand: each on its own line, clear of the blocks' numbers and of each other.

import type { BoxDoc, LayoutDoc } from "@/api/client";
import { rulerText, toTicks, type Unit } from "@/shared/lengths/length";

/** A line from an edge of the page to the block, in pixels, and its length on the page. */
export type MeasureLine = { key: string; from: [number, number]; to: [number, number]; value: number };

/** A label's middle and size, in pixels. */
export type Label = { x: number; y: number; w: number; h: number };

export type Spot = { x: number; y: number };

type Drawn = { box: BoxDoc; canvas: LayoutDoc["canvas"]; unit: Unit; scale: number; bounds: { w: number; h: number } };

const HIGH = 18;
/** A character of a label, and the room at its ends. */
const LETTER = 6.2;
const ENDS = 12;
/** A block's number keeps so much to itself around its middle. */
const NUMBER = 11;
/** Where along its line a label is tried, the best first. */
const ALONG = [0.5, 0.38, 0.62, 0.27, 0.73, 0.17, 0.83, 0.09, 0.91];

/** From its page's left and right edge (one is the fold), from top and bottom; nothing where it lies on the edge. */
export function measureLines({ box, canvas, unit, scale, bounds }: Drawn): MeasureLine[] {
  const { page } = canvas;
  const start = startOf({ box, canvas });
  const [x0, x1] = [box.x * scale, (box.x + box.w) * scale];
  const [y0, y1] = [box.y * scale, (box.y + box.h) * scale];
  const cx = clamp((x0 + x1) / 2, 8, bounds.w - 8);
  const cy = clamp((y0 + y1) / 2, 8, bounds.h - 8);
  const lines: MeasureLine[] = [
    { key: "left", from: [start * scale, cy], to: [x0, cy], value: box.x - start },
    { key: "right", from: [x1, cy], to: [(start + page.w) * scale, cy], value: start + page.w - box.x - box.w },
    { key: "top", from: [cx, 0], to: [cx, y0], value: box.y },
    { key: "bottom", from: [cx, y1], to: [cx, bounds.h], value: page.h - box.y - box.h },
  ];
  return lines.filter((l) => toTicks(l.value, unit) > 0);
}

/** Where the block's page begins, in the page's unit. */
function startOf({ box, canvas }: Pick<Drawn, "box" | "canvas">): number {
  return canvas.pages === 2 && box.x + box.w / 2 > canvas.page.w ? canvas.page.w : 0;
}

/** The block's size and each line's length: no label lies on a number or on another label where there is any other place. */
export function measureLabels(drawn: Drawn, numbers: readonly Spot[], taken: readonly Label[] = []) {
  const laid: Label[] = [...taken];
  const place = (candidates: readonly Label[]): Label => {
    const price = (l: Label, n: number) =>
      n + 60 * laid.filter((o) => overlap(l, o)).length + 40 * numbers.filter((s) => covers(l, s)).length;
    const best = candidates.map((l, n) => ({ l, p: price(l, n) })).reduce((a, b) => (b.p < a.p ? b : a)).l;
    laid.push(best);
    return best;
  };
  const size = place(sizePlaces(drawn));
  const flags = measureLines(drawn).map((line) => ({ line, at: place(flagPlaces(line, drawn)) }));
  return { size, flags, laid: laid.slice(taken.length) };
}

function flagPlaces({ from, to, value }: MeasureLine, { unit, bounds }: Drawn): Label[] {
  const w = width(rulerText(toTicks(value, unit), unit));
  const level = from[1] === to[1];
  const long = Math.abs(to[0] - from[0]) + Math.abs(to[1] - from[1]);
  // On a line too short for it, or full of numbers, a label stands beside it, so that both ends stay in sight.
  const short = long < (level ? w + 10 : HIGH + 8);
  const aside = level ? HIGH * 0.75 : w / 2 + 5;
  const far = level ? HIGH * 1.3 : w / 2 + 14;
  const shifts = [...(short ? [] : [0]), -aside, aside, -far, far];
  return shifts.flatMap((shift) =>
    ALONG.map((t) => ({
      x: clamp(from[0] + (to[0] - from[0]) * t + (level ? 0 : shift), w / 2 + 1, bounds.w - w / 2 - 1),
      y: clamp(from[1] + (to[1] - from[1]) * t + (level ? shift : 0), HIGH / 2, bounds.h - HIGH / 2),
      w,
      h: HIGH,
    })),
  );
}

/** Width by height: at the block's corners outside, then inside; it keeps to the block's page. */
function sizePlaces({ box, canvas, unit, scale, bounds }: Drawn): Label[] {
  const w = width([box.w, box.h].map((side) => rulerText(toTicks(side, unit), unit)).join(" × "));
  const start = startOf({ box, canvas });
  const [from, until] = [start * scale, (start + canvas.page.w) * scale];
  const [x0, x1] = [box.x * scale, (box.x + box.w) * scale];
  const [y0, y1] = [box.y * scale, (box.y + box.h) * scale];
  const rows = [y0 - HIGH / 2 - 1, y1 + HIGH / 2 + 1, y0 + HIGH / 2 + 2, y1 - HIGH / 2 - 2, (y0 + y1) / 2];
  const lefts = [x0, x1 - w, (x0 + x1 - w) / 2, x0 - w - 4, x1 + 4];
  return rows
    .filter((y) => y >= HIGH / 2 && y <= bounds.h - HIGH / 2)
    .flatMap((y) => lefts.map((x) => ({ x: clamp(x, from, until - w - 1) + w / 2, y, w, h: HIGH })));
}

function width(text: string): number {
  return text.length * LETTER + ENDS;
}

function overlap(a: Label, b: Label): boolean {
  return Math.abs(a.x - b.x) < (a.w + b.w) / 2 + 2 && Math.abs(a.y - b.y) < (a.h + b.h) / 2 + 2;
}

function covers(label: Label, spot: Spot): boolean {
  return Math.abs(label.x - spot.x) < label.w / 2 + NUMBER && Math.abs(label.y - spot.y) < label.h / 2 + NUMBER;
}

function clamp(value: number, least: number, most: number): number {
  return Math.min(Math.max(value, least), Math.max(least, most));
}
