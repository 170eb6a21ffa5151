// Time as a tape: what is overdue, the days from today on one by one, and the weeks after them folded.

import type { PageCard } from "@/api/client";
import { dayOf, daysBetween } from "@/shared/ui/days";

/** A folded stretch of days; the last one goes on to whatever is due last. */
export type Fold = { from: Date; to: Date; pages: readonly PageCard[] };

export type TimeTape = {
  overdue: readonly PageCard[];
  /** Today and the days after it. */
  days: readonly Date[];
  /** Pages due on one of these days, the soonest first. */
  near: readonly PageCard[];
  folds: readonly Fold[];
};

const WEEK = 7;
/** Weeks that are folded after the days. */
const FOLDS = 4;

/** The day so many days after another. */
export function dayAfter(day: Date, by: number): Date {
  return new Date(day.getFullYear(), day.getMonth(), day.getDate() + by);
}

/** The tape with so many days one by one. Pages without a date hang nowhere. */
export function timeTape(pages: readonly PageCard[], today: Date, shown: number): TimeTape {
  const away = (p: PageCard) => daysBetween(today, dayOf(p.due ?? ""));
  const dated = pages.filter((p) => p.due).sort((a, b) => away(a) - away(b));
  const last = Math.max(0, ...dated.map(away));
  const folds = Array.from({ length: FOLDS }, (_, n) => {
    const first = shown + n * WEEK;
    const end = n === FOLDS - 1 ? Math.max(first + WEEK - 1, last) : first + WEEK - 1;
    return {
      from: dayAfter(today, first),
      to: dayAfter(today, end),
      pages: dated.filter((p) => away(p) >= first && away(p) <= end),
    };
  });
  return {
    overdue: dated.filter((p) => away(p) < 0),
    days: Array.from({ length: shown }, (_, n) => dayAfter(today, n)),
    near: dated.filter((p) => away(p) >= 0 && away(p) < shown),
    folds,
  };
}

/** `5–11`, or with the month where it ends in another: `28–4 Jan`. */
export function foldText({ from, to }: Fold): string {
  const month = to.toLocaleDateString("en", { month: "short" });
  return `${from.getDate()}–${to.getDate()}${from.getMonth() === to.getMonth() ? "" : ` ${month}`}`;
}
