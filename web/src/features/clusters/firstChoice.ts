import type { StashItemView } from "@/api/client";
import { leftOf } from "./Ready";

/** As many pieces a page gets that has none: three clusters of three to five. */
const MOST = 11;
const EACH: Record<string, number> = { phrase: 1, button: 3, leaf: 3, star: 2, doily: 2, tag: 2 };

/** Pieces to begin with: a few of each thing that is left, one kit before the others, round and round. */
export function firstChoice(things: readonly StashItemView[], page: string): { item: string; count: number }[] {
  const pieces = things.filter((t) => t.item.kind === "embellishment" && leftOf(t, page, 0) > 0);
  const small = (t: StashItemView) => (t.item.size?.w ?? 1) * (t.item.size?.h ?? 1) < 0.1;
  const chosen = new Map<string, number>();
  let sum = 0;
  for (let round = 0; round < 3 && sum < MOST; round++) {
    for (const thing of pieces) {
      const most = Math.min(EACH[thing.item.form ?? ""] ?? 1, leftOf(thing, page, 0));
      if (sum >= MOST || small(thing) || round >= most) continue;
      chosen.set(thing.id, (chosen.get(thing.id) ?? 0) + 1);
      sum += 1;
    }
  }
  return [...chosen].map(([item, count]) => ({ item, count }));
}
