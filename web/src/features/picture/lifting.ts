// A sketch that is begun over a finished page: no blocks yet, whom it is owed to, the page's main colours.

import type { SketchDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";

type Lifted = {
  name: string;
  unit: Unit;
  page: { w: number; h: number };
  pages: number;
  maker: string;
  /** Earlier makers, oldest first, with commas between. */
  after: string;
  swatches: readonly string[];
};

/** Names with commas between, as a list. */
export function chain(text: string): string[] {
  return text
    .split(",")
    .map((t) => t.trim())
    .filter((t) => t !== "");
}

export function lifted({ name, unit, page, pages, maker, after, swatches }: Lifted): SketchDoc {
  const origin = { how: "scraplift", ...(maker.trim() && { maker: maker.trim() }), after: chain(after) };
  return {
    format: "metrosk-sketch/1",
    unit,
    name: name.trim() || "A lifted page",
    origin,
    swatches,
    canvas: { page, pages },
    blocks: [],
  } as SketchDoc;
}
