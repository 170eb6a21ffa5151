// What a hand lays over a page's picture goes to the edges that are near.

import { api, type LiftedFrom, type SketchDoc } from "@/api/client";
import { laid, sidesOf, whereMoved } from "./model";

/** A block that was drawn, moved or pulled over a picture, with its sides on the picture's strong edges, and on lines that are laid
 * already. Where the server has no better place the hand's own counts. */
export async function snappedTo(over: LiftedFrom, before: SketchDoc, after: SketchDoc, id: string): Promise<SketchDoc> {
  const hand = sidesOf(after, id);
  const turned = after.blocks.find((b) => b.id === id)?.turn;
  if (!hand || turned) return after;
  const found = await api.snapToLift(over, hand).catch(() => ({ sides: hand }));
  const sides = found.sides as [number, number, number, number];
  return laid(after, id, whereMoved(sidesOf(before, id), hand, sides));
}
