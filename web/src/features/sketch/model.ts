// A sketch being drawn, as pure functions from one document to the next; the same document when nothing changed.

import type { BlockDoc, BoxDoc, SketchDoc } from "@/api/client";
import { fromTicks, toTicks, type Unit } from "@/shared/lengths/length";

/** The kinds that can be drawn by mouse, with the letter of their ids. */
export const DRAWN: readonly { kind: string; letter: string }[] = [
  { kind: "photo", letter: "p" },
  { kind: "paper", letter: "b" },
  { kind: "strip", letter: "s" },
  { kind: "title", letter: "t" },
  { kind: "journal", letter: "j" },
  { kind: "cluster", letter: "c" },
  { kind: "accent", letter: "a" },
  { kind: "wash", letter: "w" },
];

export function unitOf(sketch: SketchDoc): Unit {
  return sketch.unit === "mm" ? "mm" : "in";
}

/** The ruler step that the mouse and the arrow keys go by. */
export function stepOf(sketch: SketchDoc): number {
  return unitOf(sketch) === "in" ? 1 / 8 : 1;
}

/** A length on its ruler, exact in ticks. */
export function onRuler(length: number, sketch: SketchDoc): number {
  const unit = unitOf(sketch);
  const step = toTicks(stepOf(sketch), unit);
  return fromTicks(Math.round(toTicks(length, unit) / step) * step, unit);
}

function withBox(sketch: SketchDoc, id: string, box: (b: BoxDoc) => BoxDoc): SketchDoc {
  const at = sketch.blocks.findIndex((b) => b.id === id);
  const block = sketch.blocks[at];
  if (!block) return sketch;
  const next = box(block.box);
  const same = (["x", "y", "w", "h"] as const).every((k) => next[k] === block.box[k]);
  if (same) return sketch;
  const blocks = sketch.blocks.map((b, n) => (n === at ? { ...b, box: next } : b));
  return { ...sketch, blocks };
}

/** Moves a block, and the mats that frame it, to the nearest ruler marks. */
export function moved(sketch: SketchDoc, id: string, dx: number, dy: number): SketchDoc {
  const block = sketch.blocks.find((b) => b.id === id);
  if (!block) return sketch;
  const x = onRuler(block.box.x + dx, sketch);
  const y = onRuler(block.box.y + dy, sketch);
  const by = { x: x - block.box.x, y: y - block.box.y };
  const group = [id, ...sketch.blocks.filter((b) => b.under === id).map((b) => b.id)];
  return group.reduce((s, one) => withBox(s, one, (b) => ({ ...b, x: b.x + by.x, y: b.y + by.y })), sketch);
}

/** Moves a block's right and bottom edges; it stays at least one step wide and high. */
export function resized(sketch: SketchDoc, id: string, dw: number, dh: number): SketchDoc {
  const least = stepOf(sketch);
  return withBox(sketch, id, (b) => ({
    ...b,
    w: Math.max(least, onRuler(b.x + b.w + dw, sketch) - b.x),
    h: Math.max(least, onRuler(b.y + b.h + dh, sketch) - b.y),
  }));
}

/** Edges closer than this to a like edge of another block are meant as one line, when a block is laid over a picture: 1/16 in, 1.5 mm. */
const ONE_LINE: Record<Unit, number> = { in: 1 / 16, mm: 1.5 };

/** A picture tells no more than this: 1/32 in, half a millimetre. */
const PICTURE_STEP: Record<Unit, number> = { in: 1 / 32, mm: 0.5 };

type Sides = readonly [number, number, number, number];

/** Sides that were found in a picture, for those that a hand moved; a side it left alone stays. */
export function whereMoved(before: Sides | undefined, hand: Sides, found: Sides): Sides {
  const side = (n: 0 | 1 | 2 | 3) => (before && before[n] === hand[n] ? hand[n] : found[n]);
  return [side(0), side(1), side(2), side(3)];
}

/** A block's box from its sides as shares of the canvas; a side that nearly agrees with another block's like side takes its place. */
export function laid(sketch: SketchDoc, id: string, sides: Sides): SketchDoc {
  const unit = unitOf(sketch);
  const { page, pages } = sketch.canvas;
  const others = sketch.blocks.filter((b) => b.id !== id && !b.turn);
  const agreed = (at: number, like: (b: BoxDoc) => number) => {
    const found = others.map((b) => like(b.box)).sort((a, b) => Math.abs(a - at) - Math.abs(b - at))[0];
    if (found !== undefined && Math.abs(found - at) <= ONE_LINE[unit]) return found;
    const step = toTicks(PICTURE_STEP[unit], unit);
    return fromTicks(Math.round(toTicks(at, unit) / step) * step, unit);
  };
  const [l, t, r, b] = sides;
  const x = agreed(l * page.w * pages, (o) => o.x);
  const y = agreed(t * page.h, (o) => o.y);
  const right = agreed(r * page.w * pages, (o) => o.x + o.w);
  const bottom = agreed(b * page.h, (o) => o.y + o.h);
  if (right <= x || bottom <= y) return sketch;
  return running(
    withBox(sketch, id, () => ({ x, y, w: right - x, h: bottom - y })),
    id,
  );
}

/** A strip, panel or wash that reaches the page's edge in a picture runs off there. */
function running(sketch: SketchDoc, id: string): SketchDoc {
  const { page, pages } = sketch.canvas;
  const near = ONE_LINE[unitOf(sketch)];
  const blocks = sketch.blocks.map((b) => {
    if (b.id !== id || !["strip", "paper", "wash"].includes(b.kind)) return b;
    const { x, y, w, h } = b.box;
    const reaches = {
      left: x <= near,
      right: x + w >= page.w * pages - near,
      top: y <= near,
      bottom: y + h >= page.h - near,
    };
    const bleed = Object.entries(reaches).flatMap(([edge, yes]) => (yes ? [edge] : []));
    const { bleed: _, ...rest } = b;
    return bleed.length > 0 ? { ...rest, bleed } : rest;
  });
  return { ...sketch, blocks };
}

/** A block's sides as shares of the canvas. */
export function sidesOf(sketch: SketchDoc, id: string): [number, number, number, number] | undefined {
  const block = sketch.blocks.find((b) => b.id === id);
  if (!block) return undefined;
  const { page, pages } = sketch.canvas;
  const w = page.w * pages;
  const { box } = block;
  return [box.x / w, box.y / page.h, (box.x + box.w) / w, (box.y + box.h) / page.h];
}

export type Edge = "left" | "top" | "right" | "bottom";

/** Edges of a block, each moved with the hand to the nearest ruler mark. */
export function pulled(sketch: SketchDoc, id: string, edges: readonly Edge[], dx: number, dy: number): SketchDoc {
  const block = sketch.blocks.find((b) => b.id === id);
  if (!block) return sketch;
  const { x, y, w, h } = block.box;
  const at = { left: x, right: x + w, top: y, bottom: y + h };
  return edges.reduce((s, edge) => {
    const to = onRuler(at[edge] + (edge === "left" || edge === "right" ? dx : dy), sketch);
    return edged(s, id, edge, to - at[edge]);
  }, sketch);
}

/** One edge of a block moved by a length; the other edges stay, and it stays at least a step wide and high. */
export function edged(sketch: SketchDoc, id: string, edge: Edge, by: number): SketchDoc {
  const least = stepOf(sketch);
  return withBox(sketch, id, (b) => {
    if (edge === "left") return b.w - by < least ? b : { ...b, x: b.x + by, w: b.w - by };
    if (edge === "right") return b.w + by < least ? b : { ...b, w: b.w + by };
    if (edge === "top") return b.h - by < least ? b : { ...b, y: b.y + by, h: b.h - by };
    return b.h + by < least ? b : { ...b, h: b.h + by };
  });
}

/** Draws a new block between two corners; too small a one is a slip of the hand, and nothing. */
export function drawn(sketch: SketchDoc, kind: string, from: [number, number], to: [number, number]): SketchDoc {
  const [x0, x1] = [from[0], to[0]].map((x) => onRuler(x, sketch)).sort((a, b) => a - b) as [number, number];
  const [y0, y1] = [from[1], to[1]].map((y) => onRuler(y, sketch)).sort((a, b) => a - b) as [number, number];
  const least = stepOf(sketch) * 2;
  if (x1 - x0 < least || y1 - y0 < least) return sketch;
  const letter = DRAWN.find((d) => d.kind === kind)?.letter ?? "b";
  const block: BlockDoc = { id: freeId(sketch, letter), kind, box: { x: x0, y: y0, w: x1 - x0, h: y1 - y0 } };
  return { ...sketch, blocks: [...sketch.blocks, kind === "wash" ? { ...block, shape: { type: "ellipse" } } : block] };
}

/** An id of that letter that no block has. */
export function freeId(sketch: SketchDoc, letter: string): string {
  const taken = new Set(sketch.blocks.map((b) => b.id));
  let n = 1;
  while (taken.has(`${letter}${n}`)) n++;
  return `${letter}${n}`;
}

/** Takes a block away, and what names it: its mats, and the host of what sat on it. */
export function without(sketch: SketchDoc, id: string): SketchDoc {
  const left = sketch.blocks.filter((b) => b.id !== id && b.under !== id);
  if (left.length === sketch.blocks.length) return sketch;
  const ids = new Set(left.map((b) => b.id));
  const blocks = left.map(({ host, ...b }) => (host && ids.has(host) ? { ...b, host } : b));
  return { ...sketch, blocks };
}

/** Brings a block one step up or down in the stack. */
export function stacked(sketch: SketchDoc, id: string, up: boolean): SketchDoc {
  const at = sketch.blocks.findIndex((b) => b.id === id);
  const to = up ? at + 1 : at - 1;
  if (at < 0 || to < 0 || to >= sketch.blocks.length) return sketch;
  const blocks = [...sketch.blocks];
  const [block] = blocks.splice(at, 1);
  if (block) blocks.splice(to, 0, block);
  return { ...sketch, blocks };
}

/** The sketch that a new one begins with. */
export function blank(unit: Unit): SketchDoc {
  const page = unit === "in" ? { w: 12, h: 12 } : { w: 210, h: 297 };
  return { format: "metrosk-sketch/1", unit, name: "New sketch", canvas: { page, pages: 1 }, blocks: [] };
}
