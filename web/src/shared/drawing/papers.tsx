import { createContext, useContext, useId } from "react";
import { pictureFile } from "@/api/client";

/** What a paper looks like: its colour, and its picture with how much of the paper that shows, in the page's unit. */
export type PaperLook = { colour: string; picture?: string | undefined; tile?: { w: number; h: number } | undefined };

/** The papers of a page: of its grounds (`ground-0`), of blocks (`BLOCK/PART`) and of their units (`BLOCK/PART/UNIT`). */
export type PaperLooks = ReadonlyMap<string, PaperLook>;

const Known = createContext<PaperLooks>(new Map());

/** The papers of the pages within. */
export const PapersOf = Known.Provider;

export const usePapers = () => useContext(Known);

type Laid = { id: string; from?: readonly string[] };

/** What each block of a layout is in a plan: the sketch's block and which part of it. */
export function partNames(blocks: readonly Laid[]): ReadonlyMap<string, string> {
  const parts = new Map<string, number>();
  return new Map(
    blocks.map((block) => {
      const of = block.from?.[0] ?? block.id;
      const part = parts.get(of) ?? 0;
      parts.set(of, part + 1);
      return [block.id, `${of}/${part}`];
    }),
  );
}

/** One look's name within a drawing. */
const nameOf = (look: PaperLook) => `${look.picture}-${look.tile?.w ?? 0}`.replace(/[^\w-]/g, "_");

/** Patterns for the papers that a drawing uses, to its scale, and what to fill with. */
export function usePaperFills(looks: readonly PaperLook[], scale: number) {
  const id = useId();
  const pictured = new Map(looks.filter((l) => l.picture && l.tile).map((l) => [nameOf(l), l]));
  const defs = [...pictured].map(([name, look]) => (
    <pattern
      key={name}
      id={`${id}-${name}`}
      width={(look.tile?.w ?? 1) * scale}
      height={(look.tile?.h ?? 1) * scale}
      patternUnits="userSpaceOnUse"
    >
      <image
        href={pictureFile(look.picture as string, "view")}
        width={(look.tile?.w ?? 1) * scale}
        height={(look.tile?.h ?? 1) * scale}
        preserveAspectRatio="none"
      />
    </pattern>
  ));
  const fill = (look: PaperLook | undefined) =>
    look && (look.picture && look.tile ? `url(#${id}-${nameOf(look)})` : look.colour);
  return { defs, fill };
}
