// Days of the calendar, as the table hangs pages from them.

/** A day as documents write it. */
export function isoDay(date: Date): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}

export function dayOf(iso: string): Date {
  const [y = 1970, m = 1, d = 1] = iso.split("-").map(Number);
  return new Date(y, m - 1, d);
}

/** Whole days from one to another; less than zero when it lies before. */
export function daysBetween(from: Date, to: Date): number {
  const noon = (d: Date) => Date.UTC(d.getFullYear(), d.getMonth(), d.getDate(), 12);
  return Math.round((noon(to) - noon(from)) / 86_400_000);
}

/** `due Friday 27`, `due today`, `3 days overdue`; the month is told where it is another. */
export function dueText(iso: string, today: Date): string {
  const day = dayOf(iso);
  const away = daysBetween(today, day);
  if (away < 0) return away === -1 ? "due yesterday" : `${-away} days overdue`;
  if (away === 0) return "due today";
  if (away === 1) return "due tomorrow";
  const weekday = day.toLocaleDateString("en", { weekday: "long" });
  const sameMonth = day.getMonth() === today.getMonth() && day.getFullYear() === today.getFullYear();
  if (sameMonth) return `due ${weekday} ${day.getDate()}`;
  return `due ${weekday}, ${day.getDate()} ${day.toLocaleDateString("en", { month: "short" })}`;
}
