// A way that a sketch can go to its target, in a few words.

import type { FitDoc } from "@/api/client";

const SAYS: Record<string, string> = {
  scale: "places as shares of the page",
  frame: "the sketch's own proportions, framed",
  stretch: "places as shares of the spread",
  merge: "both pages on one",
  mirror: "each page the sketch, the right one mirrored",
  echo: "each page the sketch",
  "run-on": "the sketch on the left, strips run on",
  "one-side": "the page with more photos",
};

const EMPHASIS: Record<string, string> = {
  positions: "everything at its place, shapes give way",
  proportions: "everything in its shape, places give way",
};

type Way = { approach: string; emphasis?: string | null };

/** What a way does. */
export function saysOf({ approach, emphasis }: Way): string {
  return (emphasis && EMPHASIS[emphasis]) || (SAYS[approach] ?? "");
}

/** A way's name: `stretch`, `scale, positions first`. */
export function wayName({ approach, emphasis }: Way): string {
  return emphasis ? `${approach}, ${emphasis} first` : approach;
}

/** How a sketch stands before it is fitted: `turned 90°`, `flipped left to right`, or nothing. */
export function stands(fit: Pick<FitDoc, "turn" | "flip">): string {
  const turned = fit.turn ? `turned ${fit.turn}°` : "";
  const flipped = fit.flip === "across" ? "flipped left to right" : fit.flip === "down" ? "flipped top to bottom" : "";
  return [turned, flipped].filter(Boolean).join(", ");
}

/** The ways to stand that the sketch does not stand in now and that are worth a look: quarter turns of one page, and both flips. Pins say
 * where blocks are after the turn, so a turned way is looked at without them. */
export function otherStands(fit: FitDoc): FitDoc[] {
  const { approach: _, pins: __, emphasis: ___, slots: ____, ...plain } = fit;
  const turns = fit.sketch.canvas.pages === 1 ? [0, 90, 270] : [0, 180];
  const now = (f: FitDoc) => (f.turn ?? 0) === (fit.turn ?? 0) && (f.flip ?? "none") === (fit.flip ?? "none");
  const all = [
    ...turns.map((turn): FitDoc => ({ ...plain, turn, flip: "none" })),
    { ...plain, turn: 0, flip: "across" },
    { ...plain, turn: 0, flip: "down" },
  ];
  return all.filter((f) => !now(f));
}
