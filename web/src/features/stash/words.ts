import type { StashItemView } from "@/api/client";

const SMALL = ["none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];

export const small = (count: number) => SMALL[count] ?? String(count);

/** “4, two held”. Of what one page holds itself it says so. */
export function countText(thing: StashItemView, own = 0): string {
  const { count } = thing.item;
  if (count === 0) return "none left";
  if (thing.held === 0) return String(count);
  return own > 0 ? `${count}, ${small(own)} held here` : `${count}, ${small(thing.held)} held`;
}

/** With a capital first letter. */
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
