// Where a season's calls hang from its tape of days.

import type { SeasonCallView } from "@/api/client";
import { dayOf, daysBetween } from "@/shared/ui/days";

/** A call on the tape: where its day is, and the column that hangs from it. All in pixels. */
export type Hung = { call: SeasonCallView; day: number; left: number; row: number };

export type SeasonTape = {
  /** The days shown, the first and the last of them. */
  from: Date;
  days: number;
  /** Pixels a day. */
  each: number;
  today: number;
  hung: readonly Hung[];
  /** How many rows the columns take. */
  rows: number;
};

/** A column's width, with the room to the next. */
export const COLUMN = 132;
/** Days before the first call and after the last. */
const MARGIN = 4;
/** However short a season, so many days are shown. */
const LEAST = 35;

const dayAfter = (day: Date, by: number) => new Date(day.getFullYear(), day.getMonth(), day.getDate() + by);

/** Hangs the dated calls from a tape so many pixels wide: in as few rows as there is room for, each column as near to its day as its
 * neighbours let it, none over another. */
export function seasonTape(calls: readonly SeasonCallView[], today: Date, width: number): SeasonTape {
  const dated = calls.filter((c) => c.due);
  const away = dated.map((c) => daysBetween(today, dayOf(c.due ?? "")));
  const first = Math.min(0, ...away) - MARGIN;
  const days = Math.max(LEAST, Math.max(0, ...away) + MARGIN - first);
  const each = width / days;
  const at = away.map((a) => (a - first + 0.5) * each);
  const rows = Math.max(1, Math.ceil((dated.length * COLUMN) / width));
  const lefts = Array.from({ length: rows }, (_, row) =>
    spread(
      at.filter((_, n) => n % rows === row).map((x) => x - COLUMN / 2),
      width,
    ),
  );
  const hung = dated.map((call, n) => ({
    call,
    day: at[n] ?? 0,
    left: lefts[n % rows]?.[Math.floor(n / rows)] ?? 0,
    row: n % rows,
  }));
  return { from: dayAfter(today, first), days, each, today: (-first + 0.5) * each, hung, rows };
}

/** Columns moved apart so that none stands over another, together as little as can be: neighbours that collide share the way. */
function spread(wanted: readonly number[], width: number): number[] {
  // Without their own widths, the columns only have to stay in order: blocks of them that would not are averaged.
  const blocks: { sum: number; count: number }[] = [];
  wanted.forEach((x, n) => {
    blocks.push({ sum: x - n * COLUMN, count: 1 });
    for (;;) {
      const last = blocks.at(-1);
      const before = blocks.at(-2);
      if (!last || !before || before.sum / before.count <= last.sum / last.count) break;
      blocks.splice(-2, 2, { sum: before.sum + last.sum, count: before.count + last.count });
    }
  });
  const most = width - wanted.length * COLUMN;
  const kept = blocks.flatMap(({ sum, count }) =>
    Array.from({ length: count }, () => Math.min(Math.max(sum / count, 0), Math.max(0, most))),
  );
  return kept.map((x, n) => x + n * COLUMN);
}

/** The days that are named on the tape: a week apart, counted from one with a call where there is one. */
export function namedDays({ from, days, hung }: SeasonTape): readonly { day: Date; at: number }[] {
  const first = hung[0]?.call.due;
  const offset = first ? daysBetween(from, dayOf(first)) % 7 : 0;
  const step = days > 120 ? 14 : 7;
  return Array.from({ length: Math.ceil((days - offset) / step) }, (_, n) => offset + n * step)
    .filter((at) => at < days)
    .map((at) => ({ day: dayAfter(from, at), at }));
}
