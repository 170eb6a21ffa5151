// The drawer's trays: sketches by how many photos they show.

import type { SketchView } from "@/api/client";

export type Tray = { name: string; sketches: readonly SketchView[] };

/** So few changes, and a sketch still suits her photos. */
const FEW = 2;

const TRAYS: readonly { name: string; least: number; most: number }[] = [
  { name: "No photo", least: 0, most: 0 },
  { name: "One and two photos", least: 1, most: 2 },
  { name: "Three photos", least: 3, most: 3 },
  { name: "Four photos", least: 4, most: 4 },
  { name: "Five and more", least: 5, most: Number.POSITIVE_INFINITY },
];

/** Sketches in their trays; trays without any are left out. */
export function traysOf(sketches: readonly SketchView[]): Tray[] {
  return TRAYS.map(({ name, least, most }) => ({
    name,
    sketches: sketches.filter((s) => s.reading.photo_slots >= least && s.reading.photo_slots <= most),
  })).filter((t) => t.sketches.length > 0);
}

/** Whether a sketch suits the photos that were asked about; all do where nothing was asked. */
export function suits(sketch: SketchView, asked: boolean): boolean {
  return !asked || (typeof sketch.changes === "number" && sketch.changes <= FEW);
}

/** The sketches that suit, the best first, by id: their ranks from 1. */
export function ranks(sketches: readonly SketchView[], asked: boolean): ReadonlyMap<string, number> {
  if (!asked) return new Map();
  const best = sketches.filter((s) => suits(s, true)).sort((a, b) => (a.changes ?? 0) - (b.changes ?? 0));
  return new Map(best.map((s, n) => [s.id, n + 1]));
}
