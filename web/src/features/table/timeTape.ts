// Time as a tape: its days from today on, with the pages that hang from each. Long runs of days without a page are
// folded together, so that what is due next month is still in sight.

import type { PageCard } from "@/api/client";
import { dayOf, daysBetween, isoDay } from "@/shared/ui/days";

export type Mark =
  | { kind: "overdue"; pages: readonly PageCard[] }
  | { kind: "day"; day: Date; away: number; pages: readonly PageCard[] }
  | { kind: "folded"; days: number; from: Date };

/** The tape shows at least so many days. */
const LEAST = 9;
/** Runs longer than this without a page are folded. */
const RUN = 3;

/** The tape's marks for pages that have a due date. */
export function timeTape(pages: readonly PageCard[], today: Date): Mark[] {
  const away = (p: PageCard) => daysBetween(today, dayOf(p.due ?? isoDay(today)));
  const dated = pages.filter((p) => p.due).sort((a, b) => away(a) - away(b));
  const overdue = dated.filter((p) => away(p) < 0);
  const marks: Mark[] = overdue.length > 0 ? [{ kind: "overdue", pages: overdue }] : [];
  const last = Math.max(LEAST, ...dated.map(away));
  let empty: { day: Date; away: number }[] = [];
  const lay = () => {
    // The first days are always shown one by one; a long run after them is folded.
    const near = empty.filter((e) => e.away <= RUN);
    const rest = empty.filter((e) => e.away > RUN);
    const first = rest[0];
    const shown = first && rest.length > RUN ? near : empty;
    marks.push(...shown.map((e) => ({ kind: "day" as const, ...e, pages: [] })));
    if (first && rest.length > RUN) marks.push({ kind: "folded", days: rest.length, from: first.day });
    empty = [];
  };
  for (let n = 0; n <= last; n++) {
    const day = new Date(today.getFullYear(), today.getMonth(), today.getDate() + n);
    const due = dated.filter((p) => away(p) === n);
    if (due.length === 0) empty.push({ day, away: n });
    else {
      lay();
      marks.push({ kind: "day", day, away: n, pages: due });
    }
  }
  lay();
  return marks;
}
