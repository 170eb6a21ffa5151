// Walking the blocks that were read: the least sure first, each accepted, given another kind, or dropped.

import type { BlockDoc, SketchDoc } from "@/api/client";
import { without } from "@/features/sketch/model";

/** Below this a block is looked at before the sketch is kept. */
export const UNSURE = 0.75;

/** The kinds a rectangle can be given, with the key that gives it. */
export const KIND_KEYS: readonly { key: string; kind: string }[] = [
  { key: "p", kind: "photo" },
  { key: "a", kind: "paper" },
  { key: "s", kind: "strip" },
  { key: "m", kind: "mat" },
  { key: "t", kind: "title" },
  { key: "j", kind: "journal" },
  { key: "c", kind: "cluster" },
  { key: "e", kind: "accent" },
  { key: "w", kind: "wash" },
];

export function sureOf(block: BlockDoc): number {
  return typeof block.sure === "number" ? block.sure : 1;
}

/** The blocks by how sure they are, the least first; equal ones as they lie. */
export function bySure(sketch: SketchDoc): readonly BlockDoc[] {
  return [...sketch.blocks].sort((a, b) => sureOf(a) - sureOf(b));
}

/** How many are still to be looked at. */
export function unsure(sketch: SketchDoc): number {
  return sketch.blocks.filter((b) => sureOf(b) < UNSURE).length;
}

function change(sketch: SketchDoc, id: string, to: (b: BlockDoc) => BlockDoc): SketchDoc {
  return { ...sketch, blocks: sketch.blocks.map((b) => (b.id === id ? to(b) : b)) };
}

/** The maker says that it is right. */
export function accepted(sketch: SketchDoc, id: string): SketchDoc {
  return change(sketch, id, (b) => ({ ...b, sure: 1 }));
}

/** Another kind; what only the old kind has goes, and a mat frames what the reader saw in it or nothing. */
export function asKind(sketch: SketchDoc, id: string, kind: string): SketchDoc {
  return change(sketch, id, (b) => {
    if (b.kind === kind) return { ...b, sure: 1 };
    const { grid: _grid, ring: _ring, size: _size, under, host, ...rest } = b;
    const next: BlockDoc = { ...rest, kind, sure: 1 };
    if (kind === "mat" && under) next.under = under;
    if ((kind === "cluster" || kind === "accent") && host) next.host = host;
    if (kind === "cluster") next.size = "medium";
    return next;
  });
}

/** Taken away; a mat that framed it stays, as a paper. */
export function dropped(sketch: SketchDoc, id: string): SketchDoc {
  const blocks = sketch.blocks.map((b): BlockDoc => {
    if (b.under !== id) return b;
    const { under: _under, ...rest } = b;
    return { ...rest, kind: "paper" };
  });
  return without({ ...sketch, blocks }, id);
}
