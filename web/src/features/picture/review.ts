// Walking the blocks that were read: the least sure first, each accepted, given another kind, or dropped.

import type { BlockDoc, SketchDoc } from "@/api/client";
import { freeId, without } from "@/features/sketch/model";

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

/** A block made a size in inches that is written in it, about its own middle; mats that frame it keep their borders. */
export function sized(sketch: SketchDoc, id: string, size: { w: number; h: number }): SketchDoc {
  const block = sketch.blocks.find((b) => b.id === id);
  if (!block) return sketch;
  const unit = sketch.unit === "mm" ? 25.4 : 1;
  const by = { w: size.w * unit - block.box.w, h: size.h * unit - block.box.h };
  const grown = ({ x, y, w, h }: BlockDoc["box"]) => ({ x: x - by.w / 2, y: y - by.h / 2, w: w + by.w, h: h + by.h });
  const blocks = sketch.blocks.map((b) => (b.id === id || b.under === id ? { ...b, box: grown(b.box) } : b));
  return accepted({ ...sketch, blocks }, id);
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

/** Two blocks made one, of the first one's kind: the box around both, where the upper of them lies. What named the second names the
 * first. */
export function merged(sketch: SketchDoc, first: string, second: string): SketchDoc {
  const a = sketch.blocks.find((b) => b.id === first);
  const b = sketch.blocks.find((o) => o.id === second);
  if (!a || !b || a === b) return sketch;
  const x = Math.min(a.box.x, b.box.x);
  const y = Math.min(a.box.y, b.box.y);
  const w = Math.max(a.box.x + a.box.w, b.box.x + b.box.w) - x;
  const h = Math.max(a.box.y + a.box.h, b.box.y + b.box.h) - y;
  const bleed = [...new Set([...(a.bleed ?? []), ...(b.bleed ?? [])])];
  const one: BlockDoc = { ...a, box: { x, y, w, h }, sure: 1, ...(bleed.length > 0 && { bleed }) };
  const upper = Math.max(sketch.blocks.indexOf(a), sketch.blocks.indexOf(b));
  const named = (id: string | null | undefined) => (id === second ? first : id);
  const blocks = sketch.blocks
    .map((o, n) => (n === upper ? one : o))
    .filter((o, n) => n === upper || (o !== a && o !== b))
    .map((o) => {
      const under = named(o.under);
      const host = named(o.host);
      return { ...o, ...(under && under !== o.id && { under }), ...(host && host !== o.id && { host }) } as BlockDoc;
    });
  return { ...sketch, blocks };
}

/** A block cut into two halves across its longer side. */
export function halved(sketch: SketchDoc, id: string): SketchDoc {
  const at = sketch.blocks.findIndex((b) => b.id === id);
  const block = sketch.blocks[at];
  if (!block || block.grid || block.ring) return sketch;
  const { x, y, w, h } = block.box;
  const wide = w >= h;
  const near = wide ? { x, y, w: w / 2, h } : { x, y, w, h: h / 2 };
  const far = wide ? { x: x + w / 2, y, w: w / 2, h } : { x, y: y + h / 2, w, h: h / 2 };
  const letter = /^[a-z]+/.exec(id)?.[0] ?? "b";
  const bleed = (edges: readonly string[]) => block.bleed?.filter((e) => !edges.includes(e));
  const part = (box: typeof near, gone: string, other: string) => {
    const left = bleed([gone]);
    const { bleed: _, ...rest } = block;
    return { ...rest, id: other, box, sure: 1, ...(left && left.length > 0 && { bleed: left }) } as BlockDoc;
  };
  const first = part(near, wide ? "right" : "bottom", id);
  const second = part(far, wide ? "left" : "top", freeId(sketch, letter));
  return { ...sketch, blocks: [...sketch.blocks.slice(0, at), first, second, ...sketch.blocks.slice(at + 1)] };
}
