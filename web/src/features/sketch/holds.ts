// What a page holds to of its sketch: readings switched off or added, and the keep-list, as changes of the fit request.

import type { FitDoc, LinkDoc } from "@/api/client";

export type KeepWay = "place" | "size" | "both" | "free";

function same(a: LinkDoc, b: LinkDoc): boolean {
  return (
    a.what === b.what &&
    (a.along ?? "") === (b.along ?? "") &&
    [...a.blocks].sort().join() === [...b.blocks].sort().join()
  );
}

/** Whether a reading is held to. */
export function holdsTo(fit: FitDoc, link: LinkDoc): boolean {
  return !(fit.readings?.off ?? []).some((l) => same(l, link));
}

function withReadings(fit: FitDoc, off: readonly LinkDoc[], on: readonly LinkDoc[]): FitDoc {
  const { readings: _, ...rest } = fit;
  if (off.length === 0 && on.length === 0) return rest;
  return { ...rest, readings: { ...(off.length > 0 && { off: [...off] }), ...(on.length > 0 && { on: [...on] }) } };
}

/** Switches a reading off, or on again. */
export function switched(fit: FitDoc, link: LinkDoc): FitDoc {
  const off = fit.readings?.off ?? [];
  const without = off.filter((l) => !same(l, link));
  return withReadings(fit, without.length === off.length ? [...off, link] : without, fit.readings?.on ?? []);
}

/** Adds a reading of her own; one that is there already stays. */
export function added(fit: FitDoc, link: LinkDoc): FitDoc {
  const on = fit.readings?.on ?? [];
  return on.some((l) => same(l, link)) ? fit : withReadings(fit, fit.readings?.off ?? [], [...on, link]);
}

/** Takes a reading of her own away. */
export function unadded(fit: FitDoc, link: LinkDoc): FitDoc {
  const on = fit.readings?.on ?? [];
  return withReadings(
    fit,
    fit.readings?.off ?? [],
    on.filter((l) => !same(l, link)),
  );
}

export function keepOf(fit: FitDoc, block: string): KeepWay | undefined {
  return fit.keep?.[block] as KeepWay | undefined;
}

/** Holds a block to something, or lets the fit weigh it with all the rest. */
export function withKeep(fit: FitDoc, block: string, way: KeepWay | undefined): FitDoc {
  const { keep: before, ...rest } = fit;
  const { [block]: _, ...others } = before ?? {};
  const keep = way ? { ...others, [block]: way } : others;
  return Object.keys(keep).length > 0 ? { ...rest, keep } : rest;
}

/** Pins, holds and readings that speak of blocks which the sketch no longer has would be refused: they go with the block. */
export function holdsFor(fit: FitDoc): FitDoc {
  const ids = new Set(fit.sketch.blocks.map((b) => b.id));
  const known = (links: readonly LinkDoc[] | null | undefined) =>
    (links ?? []).map((l) => ({ ...l, blocks: l.blocks.filter((b) => ids.has(b)) })).filter((l) => l.blocks.length > 1);
  const kept = Object.entries(fit.keep ?? {}).filter(([id]) => ids.has(id));
  const { keep: _, ...held } = fit;
  const rest = held.pins ? { ...held, pins: held.pins.filter((p) => ids.has(p.block)) } : held;
  const next = withReadings(rest, known(fit.readings?.off), known(fit.readings?.on));
  return kept.length > 0 ? { ...next, keep: Object.fromEntries(kept) } : next;
}
