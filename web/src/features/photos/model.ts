// Choices of the Photos station as pure functions from one plan to the next.

import type { FaceDoc, LayerDoc, LiftChoiceDoc, MatChoiceDoc, PlacedPhotoDoc, PlanDoc, PrintDoc } from "@/api/client";
import { fromTicks, TICKS, toTicks, type Unit } from "@/shared/lengths/length";

type Photos = NonNullable<PlanDoc["photos"]>;
export type Lift = "flat" | "card" | "thin-foam" | "thick-foam";

export const unitOfPlan = (plan: PlanDoc): Unit => (plan.unit === "mm" ? "mm" : "in");

/** The prints on the worktop, with a place or not; none where only a count is asked for. */
export function printsOn(plan: PlanDoc): readonly PrintDoc[] {
  const photos = plan.photos?.photos;
  return Array.isArray(photos) ? photos : [];
}

function withSection(plan: PlanDoc, section: Partial<Photos>): PlanDoc {
  return { ...plan, photos: { ...plan.photos, ...section } as Photos };
}

/** The plan with other prints; without any the sketch's own count is back. */
export function withPrints(plan: PlanDoc, prints: readonly PrintDoc[]): PlanDoc {
  if (prints.length > 0) return withSection(plan, { photos: [...prints] });
  const { photos: _, ...rest } = plan.photos ?? {};
  return { ...plan, photos: rest as Photos };
}

/** One print changed. A field that is set to `undefined` goes. */
export function withPrint(plan: PlanDoc, id: string, change: Partial<Record<keyof PrintDoc, unknown>>): PlanDoc {
  const changed = (print: PrintDoc): PrintDoc => {
    const all = Object.entries({ ...print, ...change }).filter(([, value]) => value !== undefined);
    return Object.fromEntries(all) as PrintDoc;
  };
  return withPrints(
    plan,
    printsOn(plan).map((p) => (p.id === id ? changed(p) : p)),
  );
}

/** The next number that no print has. */
export function freeIds(prints: readonly PrintDoc[], count: number): string[] {
  const taken = new Set(prints.map((p) => p.id));
  const free: string[] = [];
  for (let n = prints.length + 1; free.length < count; n += 1) {
    if (!taken.has(String(n))) free.push(String(n));
  }
  return free;
}

/** More prints on the worktop. So many as the page has places left get one; the others lie aside. */
export function withMore(plan: PlanDoc, more: readonly Omit<PrintDoc, "id">[], places: number): PlanDoc {
  const prints = printsOn(plan);
  const ids = freeIds(prints, more.length);
  let left = Math.max(0, places - prints.filter((p) => !p.aside).length);
  const added = more.map((print, n) => {
    const aside = left > 0 ? {} : { aside: true };
    left -= 1;
    return { ...print, ...aside, id: ids[n] as string };
  });
  return withPrints(plan, [...prints, ...added]);
}

/** A print taken off the worktop. The last one that has a place stays: the page would have none. */
export function withoutPrint(plan: PlanDoc, id: string): PlanDoc {
  return withPrints(
    plan,
    printsOn(plan).filter((p) => p.id !== id),
  );
}

/** A print that lies aside gets a place, or one that has a place lies aside. */
export function withAside(plan: PlanDoc, id: string, aside: boolean): PlanDoc {
  return withPrint(plan, id, aside ? { aside: true, place: undefined } : { aside: undefined });
}

/** The main photo; there is one at the most. */
export function withMain(plan: PlanDoc, id: string | undefined): PlanDoc {
  return withPrints(
    plan,
    printsOn(plan).map(({ focal: _, ...p }) => (p.id === id ? { ...p, focal: true } : p)),
  );
}

/** Two prints change places, and stay there. One that lay aside takes the other's. */
export function withSwap(plan: PlanDoc, a: string, b: string, placed: readonly PlacedPhotoDoc[]): PlanDoc | undefined {
  const prints = printsOn(plan);
  if (a === b || !prints.some((p) => p.id === a) || !prints.some((p) => p.id === b)) return undefined;
  const placeOf = (id: string) => {
    const at = placed.find((p) => p.print === id);
    return at ? { place: { block: at.of, part: at.part }, aside: undefined } : { place: undefined, aside: true };
  };
  // A window is meant for the place it was set in.
  return withPrint(withPrint(plan, a, { ...placeOf(b), crop: undefined }), b, { ...placeOf(a), crop: undefined });
}

/** A share of a print that brings a window's edge to a length, to the tick. */
export function shareOf(length: number, of: number, unit: Unit): number {
  return toTicks(length, unit) / toTicks(of, unit);
}

/** What is off each side of a print, in the unit. */
export function offOf(placed: PlacedPhotoDoc): { left: number; top: number; right: number; bottom: number } {
  const { window, size } = placed;
  return {
    left: window.x,
    top: window.y,
    right: Math.max(0, size.w - window.x - window.w),
    bottom: Math.max(0, size.h - window.y - window.h),
  };
}

type Side = "left" | "top" | "right" | "bottom";

/** The window moved so that so much is off one side. */
export function withOff(plan: PlanDoc, placed: PlacedPhotoDoc, side: Side, off: number): PlanDoc {
  const { window, size } = placed;
  const x = side === "left" ? off : side === "right" ? size.w - window.w - off : window.x;
  const y = side === "top" ? off : side === "bottom" ? size.h - window.h - off : window.y;
  return withWindow(plan, placed, x, y);
}

/** The window's corner put at a place on the print, as near to it as the print goes. */
export function withWindow(plan: PlanDoc, placed: PlacedPhotoDoc, x: number, y: number): PlanDoc {
  const { window, size } = placed;
  const unit = unitOfPlan(plan);
  const within = (at: number, most: number) => Math.min(Math.max(at, 0), Math.max(0, most));
  const print = printsOn(plan).find((p) => p.id === placed.print);
  const zoom = print?.crop?.zoom;
  return withPrint(plan, placed.print, {
    crop: {
      x: shareOf(within(x, size.w - window.w), size.w, unit),
      y: shareOf(within(y, size.h - window.h), size.h, unit),
      ...(zoom ? { zoom } : {}),
    },
  });
}

/** A file seen nearer: the same middle, so many times enlarged. */
export function withZoom(plan: PlanDoc, placed: PlacedPhotoDoc, zoom: number): PlanDoc {
  const print = printsOn(plan).find((p) => p.id === placed.print);
  const before = print?.crop?.zoom ?? 1;
  const by = zoom / before;
  const { window, size } = placed;
  const start = (at: number, length: number, full: number) => {
    const middle = (at + length / 2) / full;
    const share = length / (full * by);
    return Math.min(Math.max(middle - share / 2, 0), Math.max(0, 1 - share));
  };
  const crop = { x: start(window.x, window.w, size.w), y: start(window.y, window.h, size.h), zoom };
  return withPrint(plan, placed.print, { crop });
}

/** A quarter turn, with all that is marked on it. */
export function withTurn(plan: PlanDoc, id: string): PlanDoc {
  const print = printsOn(plan).find((p) => p.id === id);
  if (!print) return plan;
  const area = (f: FaceDoc) => ({ x: round(1 - f.y - f.h), y: f.x, w: f.h, h: f.w });
  return withPrint(plan, id, {
    w: print.h,
    h: print.w,
    turned: ((print.turned ?? 0) + 90) % 360 || undefined,
    pixels: print.pixels ? [print.pixels[1], print.pixels[0]] : undefined,
    faces: print.faces?.map(area),
    covers: print.covers?.map(area),
    mark: print.mark ? { x: round(1 - print.mark.y), y: print.mark.x } : undefined,
    crop: undefined,
  });
}

const round = (share: number) => Math.round(share * 1e4) / 1e4;

/** An area on a print, kept within it and no smaller than a crumb. */
export function areaWithin(area: FaceDoc): FaceDoc {
  const w = Math.min(Math.max(area.w, 0.02), 1);
  const h = Math.min(Math.max(area.h, 0.02), 1);
  const x = Math.min(Math.max(area.x, 0), 1 - w);
  const y = Math.min(Math.max(area.y, 0), 1 - h);
  const [left, top] = [Math.floor(x * 1e4 + 1e-6) / 1e4, Math.floor(y * 1e4 + 1e-6) / 1e4];
  return { x: left, y: top, w: Math.min(round(w), round(1 - left)), h: Math.min(round(h), round(1 - top)) };
}

/** What was chosen for a photo's layers; nothing where the sketch's own mats stay. */
export function layersFor(plan: PlanDoc, block: string): readonly LayerDoc[] | undefined {
  const mats = plan.photos?.mats ?? [];
  return chosenFor(mats, block)?.layers;
}

function chosenFor<C extends { of?: string[] | null }>(choices: readonly C[], block: string): C | undefined {
  const own = choices.findLast((c) => c.of?.includes(block));
  return own ?? choices.findLast((c) => !c.of || c.of.length === 0);
}

/** Choices with one for a photo changed; `undefined` gives the photo back to what is chosen for all. */
function withOwn<C extends { of?: string[] | null }>(choices: readonly C[], block: string, own: C | undefined): C[] {
  const others = choices.flatMap((c) => {
    if (!c.of?.includes(block)) return [c];
    const left = c.of.filter((id) => id !== block);
    return left.length > 0 ? [{ ...c, of: left }] : [];
  });
  return own ? [...others, own] : others;
}

/** Whether prints that share a slot have layers each. */
export const layersEach = (plan: PlanDoc, block: string) => chosenFor(plan.photos?.mats ?? [], block)?.each === true;

/** Layers for one photo; prints that share its slot have them together, or one set each. */
export function withLayers(
  plan: PlanDoc,
  block: string,
  layers: readonly LayerDoc[] | undefined,
  each = layersEach(plan, block),
): PlanDoc {
  const own: MatChoiceDoc | undefined = layers && { of: [block], layers: [...layers], ...(each ? { each } : {}) };
  return withSection(plan, { mats: withOwn(plan.photos?.mats ?? [], block, own) });
}

/** Layers for all photos: choices for single ones go. */
export function withLayersForAll(plan: PlanDoc, layers: readonly LayerDoc[]): PlanDoc {
  return withSection(plan, { mats: [{ layers: [...layers] }] });
}

export function liftFor(plan: PlanDoc, block: string): Lift {
  return (chosenFor(plan.photos?.lift ?? [], block)?.by ?? "flat") as Lift;
}

export function withLift(plan: PlanDoc, block: string, by: Lift): PlanDoc {
  const own: LiftChoiceDoc = { of: [block], by };
  return withSection(plan, { lift: withOwn(plan.photos?.lift ?? [], block, own) });
}

export function withRoom(plan: PlanDoc, room: number): PlanDoc {
  return withSection(plan, { room });
}

/** Layers that were measured on the page, as a choice: what the sketch drew, to go on from. */
export function layersMeasured(placed: PlacedPhotoDoc): LayerDoc[] {
  return placed.layers.map((l) => {
    const [left = 0, top = 0, right = 0, bottom = 0] = l.borders;
    return left === right && top === bottom && left === top ? { border: left } : { left, top, right, bottom };
  });
}

/** A usual border: 1/8 in, 3 mm. */
export const usualBorder = (unit: Unit) => (unit === "in" ? 1 / 8 : 3);

/** So many layers: those there are, and even ones of a usual border further out. */
export function countedLayers(now: readonly LayerDoc[], count: number, unit: Unit): LayerDoc[] {
  const usual: LayerDoc = { border: usualBorder(unit) };
  return Array.from({ length: count }, (_, n) => now[n] ?? usual);
}

/** The outer layers set off down and to the right by half their borders, or all even again. */
export function setOffLayers(now: readonly LayerDoc[], off: boolean, unit: Unit): LayerDoc[] {
  return now.map((layer, n) => {
    const border = layer.border ?? layer.left ?? usualBorder(unit);
    if (!off || (n === 0 && now.length > 1)) return withEdge({ border }, layer.edge);
    const half = half8(border, unit);
    return withEdge({ border, off: { x: half, y: half } }, layer.edge);
  });
}

const withEdge = (layer: LayerDoc, edge: string | null | undefined): LayerDoc => (edge ? { ...layer, edge } : layer);

/** About half of a length, on a mark of the ruler. */
function half8(length: number, unit: Unit): number {
  const step = unit === "in" ? TICKS.in / 16 : TICKS.mm / 2;
  return fromTicks(Math.round(toTicks(length, unit) / 2 / step) * step, unit);
}

export const isSetOff = (layers: readonly LayerDoc[]) =>
  layers.some((l) => (l.off?.x ?? 0) !== 0 || (l.off?.y ?? 0) !== 0);
