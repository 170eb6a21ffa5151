// The prints she has, as pure functions from one fit request to the next: sizes, the main one, what must not be cut.

import type { FaceDoc, FitDoc, PrintDoc } from "@/api/client";
import { fromTicks, TICKS, toTicks, type Unit } from "@/shared/lengths/length";
import { MOST_PHOTOS, unitOf } from "./model";

/** The prints of a request that lists them. */
export function printsOf(fit: FitDoc): readonly PrintDoc[] | undefined {
  return Array.isArray(fit.photos) ? fit.photos : undefined;
}

/** A usual print of about a slot's shape: upright, level or square, in the unit. */
function usual(w: number, h: number, unit: Unit): { w: number; h: number } {
  const [long, short] = unit === "in" ? [6, 4] : [150, 100];
  if (w / h > 1.15) return { w: long, h: short };
  if (h / w > 1.15) return { w: short, h: long };
  return { w: short, h: short };
}

/** A name that no other print has. */
function freeName(prints: readonly PrintDoc[]): string {
  let n = prints.length + 1;
  while (prints.some((p) => p.id === `f${n}`)) n += 1;
  return `f${n}`;
}

/** Lists prints in place of a count: one for each photo that is asked for, in usual sizes. */
export function startPrints(fit: FitDoc): FitDoc {
  const drawn = fit.sketch.blocks.filter((b) => b.kind === "photo");
  const asked = fit.photos && !Array.isArray(fit.photos) ? fit.photos.count : drawn.length;
  const unit = unitOf(fit);
  const prints = Array.from({ length: Math.max(asked, 1) }, (_, n) => {
    const slot = drawn[n % Math.max(drawn.length, 1)]?.box ?? { w: 1, h: 1 };
    return { id: `f${n + 1}`, ...usual(slot.w, slot.h, unit) };
  });
  return { ...fit, photos: prints };
}

/** Back to a count of photos in the sketch's own shapes; the list goes. */
export function withoutPrints(fit: FitDoc): FitDoc {
  const prints = printsOf(fit);
  if (!prints) return fit;
  const { photos: _, photo_rule: __, ...rest } = fit;
  const drawn = fit.sketch.blocks.filter((b) => b.kind === "photo").length;
  return prints.length === drawn && !fit.slots ? rest : { ...rest, photos: { count: prints.length } };
}

function withList(fit: FitDoc, prints: readonly PrintDoc[]): FitDoc {
  return { ...fit, photos: [...prints] };
}

export function withPrintMore(fit: FitDoc): FitDoc {
  const prints = printsOf(fit) ?? [];
  if (prints.length >= MOST_PHOTOS) return fit;
  const last = prints[prints.length - 1] ?? { id: "", ...usual(1, 1, unitOf(fit)) };
  return withList(fit, [...prints, { id: freeName(prints), w: last.w, h: last.h }]);
}

export function withPrintLess(fit: FitDoc, id: string): FitDoc {
  const prints = printsOf(fit) ?? [];
  return prints.length > 1
    ? withList(
        fit,
        prints.filter((p) => p.id !== id),
      )
    : fit;
}

export function withPrintSize(fit: FitDoc, id: string, side: "w" | "h", length: number): FitDoc {
  return withList(
    fit,
    (printsOf(fit) ?? []).map((p) => (p.id === id ? { ...p, [side]: length } : p)),
  );
}

/** Turns a print a quarter, as it will be looked at, and what is marked on it along. */
export function withPrintTurned(fit: FitDoc, id: string): FitDoc {
  const turned = (p: PrintDoc): PrintDoc => ({
    ...p,
    w: p.h,
    h: p.w,
    ...(p.faces ? { faces: p.faces.map((f) => ({ x: round(1 - f.y - f.h), y: f.x, w: f.h, h: f.w })) } : {}),
  });
  return withList(
    fit,
    (printsOf(fit) ?? []).map((p) => (p.id === id ? turned(p) : p)),
  );
}

/** The main photo; there is one at the most. */
export function withFocal(fit: FitDoc, id: string | undefined): FitDoc {
  return withList(
    fit,
    (printsOf(fit) ?? []).map(({ focal: _, ...p }) => (p.id === id ? { ...p, focal: true } : p)),
  );
}

export function withPhotoRule(fit: FitDoc, whole: boolean): FitDoc {
  const { photo_rule: _, ...rest } = fit;
  return whole ? { ...rest, photo_rule: "whole" } : rest;
}

/** The squares in which faces are marked on a print: about an inch each, three to eight along a side. */
export function faceSquares(print: PrintDoc, unit: Unit): { cols: number; rows: number } {
  const inch = unit === "in" ? 1 : 25.4;
  const along = (side: number) => Math.min(8, Math.max(3, Math.round(side / inch)));
  return { cols: along(print.w), rows: along(print.h) };
}

function round(share: number): number {
  return Math.round(share * 1e4) / 1e4;
}

/** The square of a column and a row as a face. */
function squareOf(col: number, row: number, { cols, rows }: { cols: number; rows: number }): FaceDoc {
  const [x, y] = [round(col / cols), round(row / rows)];
  return { x, y, w: round(round((col + 1) / cols) - x), h: round(round((row + 1) / rows) - y) };
}

/** Whether a face lies over the middle of a square. */
export function isMarked(print: PrintDoc, col: number, row: number, squares: { cols: number; rows: number }): boolean {
  const [x, y] = [(col + 0.5) / squares.cols, (row + 0.5) / squares.rows];
  return (print.faces ?? []).some((f) => f.x <= x && x <= f.x + f.w && f.y <= y && y <= f.y + f.h);
}

/** Marks a square, or takes the mark from it. */
export function withFace(fit: FitDoc, id: string, col: number, row: number): FitDoc {
  const unit = unitOf(fit);
  const prints = (printsOf(fit) ?? []).map((print) => {
    if (print.id !== id) return print;
    const squares = faceSquares(print, unit);
    const marked: FaceDoc[] = [];
    for (let r = 0; r < squares.rows; r += 1) {
      for (let c = 0; c < squares.cols; c += 1) {
        if (isMarked(print, c, r, squares) !== (c === col && r === row)) marked.push(squareOf(c, r, squares));
      }
    }
    const { faces: _, ...rest } = print;
    return marked.length > 0 ? { ...rest, faces: marked } : rest;
  });
  return withList(fit, prints);
}

/** Prints in another unit are as large as they were. */
export function printsIn(prints: readonly PrintDoc[], from: Unit, to: Unit): PrintDoc[] {
  const side = (length: number) =>
    fromTicks(Math.round(toTicks(length, from) / (TICKS[to] / 100)) * (TICKS[to] / 100), to);
  return prints.map((p) => ({ ...p, w: side(p.w), h: side(p.h) }));
}
