import type { SaidView, StashItemDoc } from "@/api/client";

/** What was not understood goes as a note to the thing before it; with nothing before it, it has nowhere to go. */
export function withNotes(said: readonly SaidView[]): StashItemDoc[] {
  const items: StashItemDoc[] = [];
  for (const { item, unknown } of said) {
    const last = items.at(-1);
    if (item) items.push(item);
    else if (last && unknown)
      items[items.length - 1] = { ...last, note: [last.note, unknown].filter(Boolean).join(", ") };
  }
  return items;
}
