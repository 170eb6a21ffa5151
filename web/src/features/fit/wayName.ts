// A way that a sketch can go to its target, in a few words.

import type { FitDoc, ProposalDoc } from "@/api/client";

const SAYS: Record<string, string> = {
  scale: "grown or shrunk with the page",
  frame: "in its own proportions, framed",
  stretch: "drawn over both pages",
  merge: "both pages on one",
  mirror: "twice, facing each other",
  echo: "twice, alike",
  "run-on": "on the left, strips run on",
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

/** How much of the page its photos take: `91 sq in of photo`. */
export function photoArea({ layout }: Pick<ProposalDoc, "layout">): string {
  const area = layout.blocks.filter((b) => b.kind === "photo").reduce((sum, b) => sum + b.box.w * b.box.h, 0);
  return layout.unit === "mm" ? `${Math.round(area / 100)} sq cm of photo` : `${Math.round(area)} sq in of photo`;
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
