import { createContext, useContext, useMemo } from "react";

/** What a block is called on screens, by its id: its number on the sketch card. Ids are for files and lines by number. */
type Numbers = ReadonlyMap<string, string>;

const Known = createContext<Numbers>(new Map());

/** Names the blocks within by the numbers given; those known outside stay. */
export function BlockNumbers({
  numbers,
  children,
}: {
  numbers: Iterable<[string, string]>;
  children: React.ReactNode;
}) {
  const outer = useContext(Known);
  const all = useMemo(() => new Map([...outer, ...numbers]), [outer, numbers]);
  return <Known value={all}>{children}</Known>;
}

export const useBlockNumbers = () => useContext(Known);

/** The numbers of a sketch's blocks: their places in the document, from 1. */
export const numbersOf = (blocks: readonly { id: string }[]): [string, string][] =>
  blocks.map((b, n) => [b.id, String(n + 1)]);

/** Ids as the notation makes them: letters and a number, and a letter for a further part. */
const ID = /\b([a-z]+\d+[a-z]?)\b/i;

/** A text in pieces: plain ones, and blocks by their numbers. Names that are no block's stay in the plain pieces. */
export function inPieces(text: string, numbers: Numbers): (string | { number: string })[] {
  return text.split(ID).map((piece, n) => {
    const number = n % 2 === 1 ? numbers.get(piece) : undefined;
    return number === undefined ? piece : { number };
  });
}

/** A text in which blocks go by their numbers, where no badge can be set: a tooltip, a list in passing. */
export function byNumber(text: string, numbers: Numbers): string {
  return inPieces(text, numbers)
    .map((piece) => (typeof piece === "string" ? piece : piece.number))
    .join("");
}

/** A block's number, the same wherever the block is spoken of. */
export function BlockBadge({ number, on = false }: { number: string; on?: boolean }) {
  return (
    <span
      className={`inline-flex h-[20px] min-w-[20px] items-center justify-center rounded-full border border-ink px-1 align-baseline font-bold text-[11px] leading-none ${
        on ? "bg-ink text-sheet" : "bg-sheet text-ink"
      }`}
    >
      {number}
    </span>
  );
}
