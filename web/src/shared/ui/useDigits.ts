import { isForPage } from "./letterKeys";
import { useKeyBindings } from "./useKeyBindings";

const DIGITS = Array.from({ length: 9 }, (_, n) => String(n + 1));

/** The digits take a numbered thing in hand while the page has the focus. */
export function useDigits(take: (digit: string) => void) {
  useKeyBindings(Object.fromEntries(DIGITS.map((d) => [d, (e: KeyboardEvent) => isForPage(e) && take(d)])));
}
