import { useSyncExternalStore } from "react";

/** How much room a screen has: three columns, two, or one under the other. */
export type Room = "wide" | "medium" | "narrow";

const WIDE = "(min-width: 1180px)";
const MEDIUM = "(min-width: 900px)";

const read = (): Room =>
  window.matchMedia(WIDE).matches ? "wide" : window.matchMedia(MEDIUM).matches ? "medium" : "narrow";

function subscribe(onChange: () => void): () => void {
  const queries = [WIDE, MEDIUM].map((q) => window.matchMedia(q));
  for (const query of queries) query.addEventListener("change", onChange);
  return () => {
    for (const query of queries) query.removeEventListener("change", onChange);
  };
}

/** The room there is now. */
export const useRoom = (): Room => useSyncExternalStore(subscribe, read);

function subscribeToHeight(onChange: () => void): () => void {
  window.addEventListener("resize", onChange);
  return () => window.removeEventListener("resize", onChange);
}

/** The height of the window in pixels. */
export const useWindowHeight = (): number => useSyncExternalStore(subscribeToHeight, () => window.innerHeight);
