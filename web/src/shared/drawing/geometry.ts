// Boxes of documents in pixels, and numbers for blocks.

import type { BlockDoc, BoxDoc, LayoutBlockDoc, SketchDoc } from "@/api/client";

/** A block's number on the sketch card: its place in the document, from 1; further parts get letters. */
export type Numbered = { block: LayoutBlockDoc; number: string; index: number };

/** The numbers of a layout's blocks, by the sketch block that each stands for. */
export function numbered(sketch: SketchDoc, blocks: readonly LayoutBlockDoc[]): Numbered[] {
  const places = new Map(sketch.blocks.map((b, n) => [b.id, n]));
  const seen = new Map<number, number>();
  return blocks.map((block) => {
    const index = places.get(block.from[0] ?? "") ?? -1;
    const part = seen.get(index) ?? 0;
    seen.set(index, part + 1);
    const letter = part === 0 ? "" : String.fromCharCode(97 + part);
    return { block, index, number: index < 0 ? (block.kind === "mat" ? "" : "+") : `${index + 1}${letter}` };
  });
}

const KINDS: Record<string, string> = { paper: "panel", journal: "journaling" };

/** What a maker calls a kind. */
export function kindWord(kind: string): string {
  return KINDS[kind] ?? kind;
}

/** A box with every length times a factor. */
export function scaled(box: BoxDoc, by: number): BoxDoc {
  return { x: box.x * by, y: box.y * by, w: box.w * by, h: box.h * by };
}

/** The box as it is looked at: sides exchanged about the centre when the turn is nearer to a quarter. */
export function extent(block: Pick<BlockDoc, "box" | "turn">): BoxDoc {
  const half = (((block.turn ?? 0) % 180) + 180) % 180;
  if (half <= 45 || half >= 135) return block.box;
  const { x, y, w, h } = block.box;
  return { x: x + (w - h) / 2, y: y + (h - w) / 2, w: h, h: w };
}
