// What is picked when looking back, and how long things took in words.

import type { ToldPageView } from "@/api/client";

/** Pages of one month, sketch, kit, maker or colour. */
export type Only = { of: "month" | "sketch" | "kit" | "maker" | "colour"; name: string };

/** The pages that have what is picked. */
export function pagesWith(pages: readonly ToldPageView[], only: Only | undefined): readonly ToldPageView[] {
  if (!only) return pages;
  const { of, name } = only;
  return pages.filter((page) => {
    if (of === "kit") return page.kits.includes(name);
    if (of === "colour") return page.colours.includes(name);
    return page[of] === name;
  });
}

/** `2 h 15 min`, `40 min`. */
export function hoursText(minutes: number): string {
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}
