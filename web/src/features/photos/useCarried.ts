import { useDrag } from "@use-gesture/react";

type Acts = {
  onTake: (print: string) => void;
  /** The print below the one that is carried. */
  onOver?: (print: string | undefined) => void;
  onSwap: ((a: string, b: string) => void) | undefined;
};

/** The print that lies at a place of the screen. */
function printAt(x: number, y: number, but: string): string | undefined {
  const found = document.elementsFromPoint(x, y).map((e) => e.closest("[data-print]")?.getAttribute("data-print"));
  return found.find((id) => id && id !== but) ?? undefined;
}

/** A print that is taken by a tap, and changes places with the one onto which it is carried. */
export function useCarried(print: string, { onTake, onOver, onSwap }: Acts) {
  return useDrag(
    ({ tap, last, xy: [x, y] }) => {
      if (tap) return onTake(print);
      if (!onSwap) return;
      const below = printAt(x, y, print);
      onOver?.(last ? undefined : below);
      if (last && below) onSwap(print, below);
    },
    { filterTaps: true, threshold: 6, pointer: { keys: false } },
  );
}
