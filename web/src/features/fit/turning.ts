// Whether the sketch would serve better turned a quarter.

import type { FitDoc } from "@/api/client";

/** Sides nearer to each other than this make a square: it stands and lies alike. */
const SQUARE = 1.08;
/** A page of another shape has to be this much nearer to the turned sketch's, as a logarithm. */
const NEARER = 0.2;

const lies = (w: number, h: number) => w > h * SQUARE;
const stands = (w: number, h: number) => h > w * SQUARE;

/** Why a quarter turn would serve, in a sentence; nothing where the sketch serves as it stands. */
export function quarterServes(fit: FitDoc): string | undefined {
  const { canvas, blocks } = fit.sketch;
  if (canvas.pages !== 1) return undefined;
  const turned = fit.turn === 90 || fit.turn === 270;
  const side = (w: number, h: number): [number, number] => (turned ? [h, w] : [w, h]);
  if (Array.isArray(fit.photos)) {
    const slots = blocks.filter((b) => b.kind === "photo").map((b) => side(b.box.w, b.box.h));
    const prints = fit.photos.map((p): [number, number] => [p.w, p.h]);
    const count = (sizes: readonly [number, number][], is: typeof lies) => sizes.filter(([w, h]) => is(w, h)).length;
    const [level, upright] = [count(prints, lies), count(prints, stands)];
    const [slotsLevel, slotsUpright] = [count(slots, lies), count(slots, stands)];
    const suit = (l: number, u: number) => Math.min(level, l) + Math.min(upright, u);
    if (suit(slotsUpright, slotsLevel) > suit(slotsLevel, slotsUpright)) {
      return "More of your prints suit the slots when the sketch is turned a quarter.";
    }
  }
  if (fit.target.pages === 1) {
    const [w, h] = side(canvas.page.w, canvas.page.h);
    const page = Math.log(fit.target.page.w / fit.target.page.h);
    const off = (shape: number) => Math.abs(page - shape);
    if (off(Math.log(h / w)) + NEARER < off(Math.log(w / h))) {
      return "The page has the sketch's shape when that is turned a quarter.";
    }
  }
  return undefined;
}
