// Choices of the Fit station as pure functions from one fit request to the next.

import type { FitDoc, PinDoc, PlaceDoc, PrintDoc, SlotChoiceDoc } from "@/api/client";
import { fromTicks, TICKS, toTicks, type Unit } from "@/shared/lengths/length";
import { printsIn } from "./prints";

export type PinEdge = "left" | "right" | "top" | "bottom" | "width" | "height";

export type PageSize = { name: string; label: string; unit: Unit; w: number; h: number };

/** The page sizes makers buy; any other is typed. */
export const PAGE_SIZES: readonly PageSize[] = [
  { name: "12x12", label: "12 × 12 in", unit: "in", w: 12, h: 12 },
  { name: "letter", label: "8 1/2 × 11 in", unit: "in", w: 8.5, h: 11 },
  { name: "8x8", label: "8 × 8 in", unit: "in", w: 8, h: 8 },
  { name: "6x8", label: "6 × 8 in", unit: "in", w: 6, h: 8 },
  { name: "a4", label: "A4", unit: "mm", w: 210, h: 297 },
];

/** Ruler steps in each unit. */
export const STEPS: Record<Unit, readonly { value: number; label: string }[]> = {
  in: [
    { value: 1 / 16, label: "1/16 in" },
    { value: 1 / 8, label: "1/8 in" },
    { value: 1 / 4, label: "1/4 in" },
    { value: 0, label: "none" },
  ],
  mm: [
    { value: 0.5, label: "0.5 mm" },
    { value: 1, label: "1 mm" },
    { value: 5, label: "5 mm" },
    { value: 0, label: "none" },
  ],
};

export function unitOf(fit: FitDoc): Unit {
  return fit.unit === "mm" ? "mm" : "in";
}

/** One or two pages. A way that does not apply to that many is dropped, and so is a count that was only the other's. */
export function withPages(fit: FitDoc, pages: number): FitDoc {
  if (fit.target.pages === pages) return fit;
  const { approach: _, emphasis: __, ...rest } = fit;
  return { ...rest, target: { ...fit.target, pages } };
}

/** Another page size. Pins stay: one that can't hold on the new page is explained, not dropped. */
export function withSize(fit: FitDoc, size: { unit: Unit; w: number; h: number }): FitDoc {
  const from = unitOf(fit);
  const page = { w: size.w, h: size.h };
  if (from === size.unit) {
    if (page.w === fit.target.page.w && page.h === fit.target.page.h) return fit;
    return { ...fit, target: { ...fit.target, page } };
  }
  const room = (length: number | null | undefined) => roomIn(length ?? 0, from, size.unit);
  const target = { ...fit.target, page, margin: room(fit.target.margin), fold_guard: room(fit.target.fold_guard) };
  const photos = fit.photos && Array.isArray(fit.photos) ? printsIn(fit.photos, from, size.unit) : fit.photos;
  const pins = (fit.pins ?? []).map((pin) => ({ ...pin, at: roomIn(pin.at, from, size.unit) }));
  const mats = fit.mats ? { mats: matsIn(fit.mats, from, size.unit) } : {};
  // How thick the page may be is decided with the photos, in the plan's unit.
  const thick = "room" in fit ? { room: converted(Number(fit.room), from, size.unit) } : {};
  return {
    ...fit,
    unit: size.unit,
    target,
    pins,
    snap: size.unit === "in" ? 1 / 8 : 1,
    ...(photos ? { photos } : {}),
    ...mats,
    ...thick,
  };
}

/** The same length in another unit, to a tick. */
const converted = (length: number, from: Unit, to: Unit) => fromTicks(toTicks(length, from), to);

/** Mats in another unit are as wide as they were. */
function matsIn(mats: NonNullable<FitDoc["mats"]>, from: Unit, to: Unit): NonNullable<FitDoc["mats"]> {
  const lengths = <T extends object>(of: T): T =>
    Object.fromEntries(
      Object.entries(of).map(([name, value]) => [
        name,
        typeof value === "number"
          ? converted(value, from, to)
          : value && typeof value === "object"
            ? lengths(value)
            : value,
      ]),
    ) as T;
  return mats.map((choice) => ({ ...choice, layers: choice.layers.map(lengths) }));
}

/** A length in another unit, on that unit's ruler: 1/4 in becomes 6 mm. */
function roomIn(length: number, from: Unit, to: Unit): number {
  const step = to === "in" ? TICKS.in / 8 : TICKS.mm;
  const ticks = toTicks(length, from);
  return fromTicks(Math.round(ticks / step - 1e-9) * step, to);
}

/** How many photos the request asks for; as many as drawn where it says nothing. */
export function photoCount(fit: FitDoc): { count: number; drawn: number; asDrawn: boolean } {
  const drawn = fit.sketch.blocks.filter((b) => b.kind === "photo").length;
  const asked = fit.photos;
  if (!asked) return { count: drawn, drawn, asDrawn: true };
  return { count: Array.isArray(asked) ? asked.filter((p) => !p.aside).length : asked.count, drawn, asDrawn: false };
}

export const MOST_PHOTOS = 24;

/** So many photos; as many as drawn is said by saying nothing. */
export function withPhotos(fit: FitDoc, count: number): FitDoc {
  const { drawn, count: now } = photoCount(fit);
  if (count === now || count < 1 || count > MOST_PHOTOS) return fit;
  if (Array.isArray(fit.photos))
    return { ...fit, photos: count < now ? withLastAside(fit.photos) : withFirstPlaced(fit.photos) };
  // Choices for slots show a number of their own: with another count the fit finds its own again where they don't suit.
  const { photos: _, slots, ...rest } = fit;
  const kept = slots?.every((s) => s.photos.length < drawn) && slotsShow(slots) < count ? { slots } : {};
  return count === drawn && !("slots" in kept) ? rest : { ...rest, ...kept, photos: { count } };
}

/** Of listed prints, whether one lies aside that could have a place. */
export const hasAside = (fit: FitDoc) => Array.isArray(fit.photos) && fit.photos.some((p) => p.aside);

/** The last print that has a place, and is not the main one, lies aside. */
function withLastAside(prints: readonly PrintDoc[]): PrintDoc[] {
  const last = prints.findLastIndex((p) => !p.aside && !p.focal);
  return prints.map(({ place, ...p }, n) =>
    n === last ? { ...p, aside: true } : { ...p, ...(place ? { place } : {}) },
  );
}

/** The first print that lies aside gets a place. */
function withFirstPlaced(prints: readonly PrintDoc[]): PrintDoc[] {
  const first = prints.findIndex((p) => p.aside);
  return prints.map(({ aside, ...p }, n) => (n === first || !aside ? p : { ...p, aside }));
}

/** How many photos a choice for a slot shows. */
function slotShows(choice: SlotChoiceDoc): number {
  if (choice.as === "cells") return (choice.cols ?? 1) * (choice.rows ?? 1);
  if (choice.as === "each") return 2;
  return choice.as === "focal" ? (choice.small ?? 1) + 1 : 0;
}

/** How many photos choices for slots show together. */
export function slotsShow(choices: readonly SlotChoiceDoc[]): number {
  return choices.reduce((sum, c) => sum + slotShows(c), 0);
}

export function withStep(fit: FitDoc, snap: number): FitDoc {
  return fit.snap === snap ? fit : { ...fit, snap };
}

export function withRoom(fit: FitDoc, which: "margin" | "fold_guard", value: number): FitDoc {
  return fit.target[which] === value ? fit : { ...fit, target: { ...fit.target, [which]: value } };
}

export function withApproach(fit: FitDoc, way: { approach: string; emphasis?: string | null }): FitDoc {
  if (fit.approach === way.approach && (fit.emphasis ?? null) === (way.emphasis ?? null)) return fit;
  const { emphasis: _, ...rest } = fit;
  return { ...rest, approach: way.approach, ...(way.emphasis ? { emphasis: way.emphasis } : {}) };
}

export function pinOf(fit: FitDoc, block: string, edge: PinEdge): PinDoc | undefined {
  return fit.pins?.find((p) => !p.to && p.block === block && p.edge === edge);
}

/** Pins an edge at a place, in place of any pin there. */
export function withPin(fit: FitDoc, block: string, edge: PinEdge, at: number): FitDoc {
  const others = (fit.pins ?? []).filter((p) => p.to || p.block !== block || p.edge !== edge);
  return { ...fit, pins: [...others, { block, edge, at }] };
}

export function withoutPin(fit: FitDoc, block: string, edge: string): FitDoc {
  const pins = (fit.pins ?? []).filter((p) => p.to || p.block !== block || p.edge !== edge);
  return pins.length === (fit.pins ?? []).length ? fit : { ...fit, pins };
}

/**
 * The rows of a block's ledger: what is measured, in the sketch, as wanted, here; and how it is pinned. Off the fold, a sketch of its own has
 * no measure, and what stands on both pages has none either.
 */
export type LedgerRow =
  | { label: string; edge: PinEdge; sketch: number; wanted: number; here: number }
  | { label: string; edge?: never; wanted: number | undefined; here: number | undefined };

/** A block's three boxes as distances that are read off a ruler, all in the fit's unit. */
export function ledgerRows(fit: FitDoc, place: PlaceDoc): LedgerRow[] {
  const width = fit.target.page.w;
  const right = (box: { x: number; w: number }) => box.x + box.w;
  const rows: LedgerRow[] = [
    { label: "left edge", edge: "left", sketch: place.sketch.x, wanted: place.wanted.x, here: place.here.x },
    {
      label: "right edge",
      edge: "right",
      sketch: right(place.sketch),
      wanted: right(place.wanted),
      here: right(place.here),
    },
    { label: "top edge", edge: "top", sketch: place.sketch.y, wanted: place.wanted.y, here: place.here.y },
    {
      label: "bottom edge",
      edge: "bottom",
      sketch: place.sketch.y + place.sketch.h,
      wanted: place.wanted.y + place.wanted.h,
      here: place.here.y + place.here.h,
    },
    { label: "width", edge: "width", sketch: place.sketch.w, wanted: place.wanted.w, here: place.here.w },
    { label: "height", edge: "height", sketch: place.sketch.h, wanted: place.wanted.h, here: place.here.h },
  ];
  if (fit.target.pages === 2) {
    const gap = (box: { x: number; w: number }) => {
      if (box.x >= width) return box.x - width;
      return right(box) <= width ? width - right(box) : undefined;
    };
    rows.push({ label: "off the fold", wanted: gap(place.wanted), here: gap(place.here) });
  }
  return rows;
}

/** The distance of a block's centre from where it was wanted, along the axis on which it moved more. */
export function moved(place: PlaceDoc): number {
  const dx = place.here.x + place.here.w / 2 - place.wanted.x - place.wanted.w / 2;
  const dy = place.here.y + place.here.h / 2 - place.wanted.y - place.wanted.h / 2;
  return Math.max(Math.abs(dx), Math.abs(dy));
}
