import type { PaperRefDoc, PaperSideDoc, PapersSectionDoc, StashItemDoc, StashItemView } from "@/api/client";
import type { PaperLook, PaperLooks } from "@/shared/drawing/papers";

const MM = 25.4;

/** A length of an item in a page's unit. */
export function inUnit(value: number, from: string, to: string): number {
  if (from === to) return value;
  return to === "mm" ? value * MM : value / MM;
}

/** From here on a paper is busy. */
export const BUSY = 0.55;

export type StashById = ReadonlyMap<string, StashItemView>;

/** The side that a plan names; of a thing with one side that one. */
export function sideOf(item: StashItemDoc, side: string | null | undefined): PaperSideDoc {
  return side === "b" && item.b ? item.b : item.a;
}

/** What a side is called. */
export function sideName(item: StashItemDoc, side: string | null | undefined): string {
  if (side !== "b") return item.name;
  return item.b?.name ?? `${item.name}, other side`;
}

/** What a side looks like, in a page's unit. */
export function lookOf(item: StashItemDoc, side: string | null | undefined, unit: string): PaperLook {
  const { colours, picture, tile } = sideOf(item, side);
  return {
    colour: colours[0]?.colour ?? "#ffffff",
    picture: picture ?? undefined,
    tile: tile ? { w: inUnit(tile.w, item.unit, unit), h: inUnit(tile.h, item.unit, unit) } : undefined,
  };
}

/** What a page's papers look like from behind: their other sides, white where they have none; a piece with a twin looks as it does from the front. */
export function looksBehind(papers: PapersSectionDoc | null | undefined, stash: StashById, unit: string): PaperLooks {
  const looks = new Map<string, PaperLook>();
  const behind = (paper: PaperRefDoc): PaperLook => {
    const found = stash.get(paper.item)?.item;
    const other = paper.side === "b" ? "a" : "b";
    return found && (other === "a" || found.b) ? lookOf(found, other, unit) : { colour: "#ffffff" };
  };
  for (const [page, paper] of Object.entries(papers?.ground ?? {})) {
    const found = stash.get(paper.item)?.item;
    if (!found) continue;
    looks.set(`ground-${page}`, isSeeThrough(found) ? lookOf(found, paper.side, unit) : behind(paper));
  }
  for (const [block, parts] of Object.entries(papers?.pieces ?? {})) {
    for (const [part, piece] of Object.entries(parts)) {
      const look = (paper: PaperRefDoc) => {
        const found = stash.get(paper.item)?.item;
        return found && (piece.twin || isSeeThrough(found)) ? lookOf(found, paper.side, unit) : behind(paper);
      };
      if (piece.paper) looks.set(`${block}/${part}`, look(piece.paper));
      for (const [name, paper] of Object.entries(piece.units ?? {})) looks.set(`${block}/${part}/${name}`, look(paper));
    }
  }
  return looks;
}

/** Whether it hides nothing of what lies under it. */
export const isSeeThrough = (item: StashItemDoc) => item.kind === "vellum" || item.kind === "acetate";

/** What a page's papers look like. A colour that is brought on all over a piece stands for its paper. */
export function looksOf(papers: PapersSectionDoc | null | undefined, stash: StashById, unit: string): PaperLooks {
  const looks = new Map<string, PaperLook>();
  const put = (name: string, paper: PaperRefDoc | null | undefined) => {
    const found = paper && stash.get(paper.item);
    if (found) looks.set(name, lookOf(found.item, paper.side, unit));
  };
  for (const [page, paper] of Object.entries(papers?.ground ?? {})) put(`ground-${page}`, paper);
  for (const [block, parts] of Object.entries(papers?.pieces ?? {})) {
    for (const [part, piece] of Object.entries(parts)) {
      put(`${block}/${part}`, piece.paper);
      for (const [unitName, paper] of Object.entries(piece.units ?? {})) put(`${block}/${part}/${unitName}`, paper);
      if (piece.made && !piece.made.edges) looks.set(`${block}/${part}`, { colour: piece.made.colour });
    }
  }
  return looks;
}
