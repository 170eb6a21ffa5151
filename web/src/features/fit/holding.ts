// What she holds beyond the page's own edges, as pure functions: pins between blocks, choices for single slots, leftover room.

import type { BlockDoc, FitDoc, PinDoc, SlotChoiceDoc } from "@/api/client";
import { toTicks } from "@/shared/lengths/length";
import { slotsShow } from "./model";

export const PLACES_ACROSS = ["left", "right", "centre-x"] as const;
export const PLACES_DOWN = ["top", "bottom", "centre-y"] as const;
export const SIZES = ["width", "height"] as const;

export const EDGE_WORDS: Record<string, string> = {
  left: "left edge",
  right: "right edge",
  "centre-x": "middle, across",
  top: "top edge",
  bottom: "bottom edge",
  "centre-y": "middle, down",
  width: "width",
  height: "height",
};

/** The edges that an edge can be held to: places of its own direction, or sizes. */
export function likeEdges(edge: string): readonly string[] {
  const all: readonly (readonly string[])[] = [PLACES_ACROSS, PLACES_DOWN];
  return all.find((list) => list.includes(edge)) ?? [edge];
}

type Place = { x: number; y: number; w: number; h: number };

/** An edge, middle or size of a box. */
export function measureOf(box: Place, edge: string): number {
  switch (edge) {
    case "right":
      return box.x + box.w;
    case "centre-x":
      return box.x + box.w / 2;
    case "top":
      return box.y;
    case "bottom":
      return box.y + box.h;
    case "centre-y":
      return box.y + box.h / 2;
    case "width":
      return box.w;
    case "height":
      return box.h;
    default:
      return box.x;
  }
}

/** Which way a distance is counted: `right of`, `above`, `more than`. */
export function wayWords(edge: string): readonly [string, string] {
  if (SIZES.includes(edge as "width")) return ["more than", "less than"];
  return PLACES_ACROSS.includes(edge as "left") ? ["right of", "left of"] : ["below", "above"];
}

/** The pins between blocks that name a block. */
export function pinsBetween(fit: FitDoc, block: string): PinDoc[] {
  return (fit.pins ?? []).filter((p) => p.to && (p.block === block || p.to.block === block));
}

export function withPinBetween(fit: FitDoc, pin: PinDoc): FitDoc {
  const others = (fit.pins ?? []).filter(
    (p) =>
      !p.to ||
      p.block !== pin.block ||
      p.edge !== pin.edge ||
      p.to.block !== pin.to?.block ||
      p.to.edge !== pin.to.edge,
  );
  return { ...fit, pins: [...others, pin] };
}

export function withoutThisPin(fit: FitDoc, pin: PinDoc): FitDoc {
  return { ...fit, pins: (fit.pins ?? []).filter((p) => p !== pin) };
}

/** A slot choice that she can take, with what it says. */
export type SlotOption = { name: string; label: string; choice?: Omit<SlotChoiceDoc, "photos"> & { photos: string[] } };

/** Photos that stand in one row with a photo, itself included, left to right: as high, at one height. */
export function rowOf(fit: FitDoc, block: BlockDoc): BlockDoc[] {
  const unit = fit.sketch.unit === "mm" ? "mm" : "in";
  const near = (a: number, b: number) => Math.abs(toTicks(a - b, unit)) <= 6_350;
  const photos = fit.sketch.blocks.filter((b) => b.kind === "photo" && !b.turn);
  return photos
    .filter((b) => near(b.box.y, block.box.y) && near(b.box.h, block.box.h))
    .sort((a, b) => a.box.x - b.box.x);
}

function isQuarter(fit: FitDoc): boolean {
  return fit.turn === 90 || fit.turn === 270;
}

/** What can become of a photo's slot. */
export function slotOptions(fit: FitDoc, block: BlockDoc): SlotOption[] {
  const one = [block.id];
  const cells = (cols: number, rows: number) => ({ photos: one, as: "cells", cols, rows });
  const row = rowOf(fit, block);
  const ids = row.map((b) => b.id);
  const at = ids.indexOf(block.id);
  const next = row[at + 1];
  return [
    { name: "found", label: "as the fit finds best" },
    { name: "one", label: "one photo", choice: cells(1, 1) },
    { name: "two-across", label: "two photos side by side", choice: cells(2, 1) },
    { name: "two-down", label: "two photos, one above the other", choice: cells(1, 2) },
    ...(fit.target.pages === 2
      ? [{ name: "each", label: "as large on both pages, at the fold", choice: { photos: one, as: "each" } }]
      : []),
    { name: "three-across", label: "three photos in a row", choice: cells(3, 1) },
    { name: "four", label: "four photos, two by two", choice: cells(2, 2) },
    {
      name: "focal-beside",
      label: "a large photo and two small ones beside it",
      choice: { photos: one, as: "focal", small: 2, along: "beside" },
    },
    {
      name: "focal-below",
      label: "a large photo and three small ones below it",
      choice: { photos: one, as: "focal", small: 3, along: "below" },
    },
    ...(row.length > 1
      ? [
          {
            name: "row-longer",
            label: `its row of ${row.length} with one photo more`,
            // A row of the sketch is a column once that is turned a quarter.
            choice: {
              photos: ids,
              as: "cells",
              cols: isQuarter(fit) ? 1 : row.length + 1,
              rows: isQuarter(fit) ? row.length + 1 : 1,
            },
          },
        ]
      : []),
    ...(next
      ? [
          {
            name: "joined",
            label: `one photo together with ${next.id}`,
            choice: { photos: [block.id, next.id], as: "cells", cols: 1, rows: 1 },
          },
        ]
      : []),
    { name: "journal", label: "writing space", choice: { photos: one, as: "journal" } },
    { name: "paper", label: "a square of paper", choice: { photos: one, as: "paper" } },
    { name: "gone", label: "left out", choice: { photos: one, as: "gone" } },
  ];
}

/** The choice that names a photo. */
export function slotChoiceOf(fit: FitDoc, photo: string): SlotChoiceDoc | undefined {
  return fit.slots?.find((s) => s.photos.includes(photo));
}

/** Which of the options a choice is. */
export function optionOf(options: readonly SlotOption[], choice: SlotChoiceDoc | undefined): SlotOption | undefined {
  if (!choice) return options.find((o) => o.name === "found");
  const same = (o: SlotOption) =>
    o.choice !== undefined &&
    o.choice.as === choice.as &&
    (o.choice.cols ?? 0) === (choice.cols ?? 0) &&
    (o.choice.rows ?? 1) === (choice.rows ?? 1) &&
    (o.choice.small ?? 0) === (choice.small ?? 0) &&
    o.choice.photos.join() === choice.photos.join();
  return options.find(same);
}

/** A photo's slot by that choice; choices that named one of its photos go. Photos count as the slots then show, unless prints are listed. */
export function withSlot(fit: FitDoc, photo: string, choice: SlotChoiceDoc | undefined): FitDoc {
  const named = choice?.photos ?? [photo];
  const others = (fit.slots ?? []).filter((s) => !s.photos.some((p) => named.includes(p) || p === photo));
  const slots = choice ? [...others, choice] : others;
  const shown = shownBy(fit, slots);
  const { slots: _, photos, ...rest } = fit;
  const drawn = fit.sketch.blocks.filter((b) => b.kind === "photo").length;
  // A count that she asked for stays where the slots can still show it; one that came with the last choice goes with it.
  const asked = photos && !Array.isArray(photos) && photos.count !== shownBy(fit, fit.slots ?? []);
  const keeps = Array.isArray(photos) || (slots.length > 0 ? photos && canShow(fit, slots, photos.count) : asked);
  return {
    ...rest,
    ...(slots.length > 0 ? { slots } : {}),
    ...(keeps && photos ? { photos } : shown !== drawn && shown > 0 ? { photos: { count: shown } } : {}),
  };
}

function shownBy(fit: FitDoc, slots: readonly SlotChoiceDoc[]): number {
  const named = slots.flatMap((s) => s.photos);
  const rest = fit.sketch.blocks.filter((b) => b.kind === "photo" && !named.includes(b.id)).length;
  return rest + slotsShow(slots);
}

/** Slots that are left free can show more or fewer; with none left the count is what the choices show. */
function canShow(fit: FitDoc, slots: readonly SlotChoiceDoc[], count: number): boolean {
  const chosen = slotsShow(slots);
  const named = slots.flatMap((s) => s.photos).length;
  const all = fit.sketch.blocks.filter((b) => b.kind === "photo").length;
  return named < all ? count > chosen : count === chosen;
}

/** Photos side by side or one above the other, up to an inch apart, as pairs: the gaps that room can go into. */
export function gapsOf(fit: FitDoc): [string, string][] {
  const inch = fit.sketch.unit === "mm" ? 25.4 : 1;
  const photos = fit.sketch.blocks.filter((b) => b.kind === "photo" && !b.turn);
  const pairs: [string, string][] = [];
  for (const a of photos) {
    for (const b of photos) {
      const beside = b.box.x - a.box.x - a.box.w;
      const below = b.box.y - a.box.y - a.box.h;
      const faceX = a.box.y < b.box.y + b.box.h && b.box.y < a.box.y + a.box.h;
      const faceY = a.box.x < b.box.x + b.box.w && b.box.x < a.box.x + a.box.w;
      if ((faceX && beside > 0 && beside <= inch) || (faceY && below > 0 && below <= inch)) pairs.push([a.id, b.id]);
    }
  }
  return pairs;
}

/** A slack as the value of a choice: `between`, or `gap p1 p2`. */
export function slackValue(fit: FitDoc): string {
  if (!fit.slack) return "best";
  return typeof fit.slack === "string" ? fit.slack : `gap ${fit.slack.gap.join(" ")}`;
}

export function withSlack(fit: FitDoc, value: string): FitDoc {
  const { slack: _, ...rest } = fit;
  if (value === "best") return rest;
  return { ...rest, slack: value.startsWith("gap ") ? { gap: value.slice(4).split(" ") } : value };
}

const CLOCKWISE = ["top-left", "top-right", "bottom-right", "bottom-left"];

/** The corner of the sketch as drawn that is seen at a corner of the page, once the sketch is turned, then flipped. */
export function drawnCorner(fit: FitDoc, seen: string): string {
  const flipped = (corner: string) => {
    const [up, side] = corner.split("-");
    if (fit.flip === "across") return `${up}-${side === "left" ? "right" : "left"}`;
    if (fit.flip === "down") return `${up === "top" ? "bottom" : "top"}-${side}`;
    return corner;
  };
  const at = CLOCKWISE.indexOf(flipped(seen)) - (fit.turn ?? 0) / 90;
  return CLOCKWISE[((at % 4) + 4) % 4] ?? seen;
}

const FOLD_WAYS = [
  { value: "", label: "where it costs least" },
  { value: "left", label: "the left page" },
  { value: "right", label: "the right page" },
  { value: "each", label: "once on each page" },
  { value: "pair", label: "a pair, half on each page" },
  { value: "across", label: "across, between two words" },
] as const;

/** What can become of a block of a kind that would stand on the fold; nothing to choose for what is cut there. */
export function foldWays(kind: string): readonly { value: string; label: string }[] {
  const kinds: Record<string, readonly string[]> = {
    photo: ["", "left", "right"],
    title: ["", "left", "right", "each", "across"],
    cluster: ["", "left", "right", "each"],
    accent: ["", "left", "right", "each"],
    journal: ["", "left", "right", "each", "pair"],
  };
  return FOLD_WAYS.filter((w) => kinds[kind]?.includes(w.value));
}

export function atFold(fit: FitDoc, block: string): string {
  return fit.at_fold?.find((c) => c.block === block)?.as ?? "";
}

/** The words of a title that runs across the fold. */
export function titleWords(fit: FitDoc, block: string): string {
  return fit.at_fold?.find((c) => c.block === block)?.words ?? "";
}

/** Whether a title can be broken between words of it. */
export const canBreak = (words: string) => words.trim().split(/\s+/).length >= 2 && words.length <= MOST_LETTERS;

/** As many letters as a title may have. */
export const MOST_LETTERS = 200;

export function withAtFold(fit: FitDoc, block: string, way: string, words?: string): FitDoc {
  const others = (fit.at_fold ?? []).filter((c) => c.block !== block);
  const { at_fold: _, ...rest } = fit;
  const all = way ? [...others, { block, as: way, ...(words === undefined ? {} : { words }) }] : others;
  return all.length > 0 ? { ...rest, at_fold: all } : rest;
}

export function withAcrossFold(fit: FitDoc, kind: string, may: boolean): FitDoc {
  const others = (fit.across_fold ?? []).filter((k) => k !== kind);
  const { across_fold: _, ...rest } = fit;
  const kinds = may ? [...others, kind] : others;
  return kinds.length > 0 ? { ...rest, across_fold: kinds } : rest;
}

/** A block held where a hand has brought it: its left and top edges, in place of other places of it that were held. */
export function withHeldAt(fit: FitDoc, block: string, left: number, top: number): FitDoc {
  const places: readonly string[] = [...PLACES_ACROSS, ...PLACES_DOWN];
  const others = (fit.pins ?? []).filter((p) => p.to || p.block !== block || !places.includes(p.edge));
  return { ...fit, pins: [...others, { block, edge: "left", at: left }, { block, edge: "top", at: top }] };
}
