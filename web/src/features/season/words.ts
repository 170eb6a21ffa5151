// How a call's days and its coming again are told.

import type { CallDoc, RepeatDoc } from "@/api/client";
import { dayOf, daysBetween } from "@/shared/ui/days";

/** `Saturday 28 November`; with the year where it is another. */
export function longDay(iso: string, today = new Date()): string {
  const day = dayOf(iso);
  const year = day.getFullYear() === today.getFullYear() ? {} : ({ year: "numeric" } as const);
  return day.toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long", ...year }).replace(",", "");
}

/** `6 Dec`. */
export const shortDay = (iso: string) => dayOf(iso).toLocaleDateString("en-GB", { day: "numeric", month: "short" });

/** `in 3 days`, `today`, `4 days ago`. */
export function inDays(iso: string, today: Date): string {
  const days = daysBetween(today, dayOf(iso));
  if (days === 0) return "today";
  if (Math.abs(days) === 1) return days > 0 ? "tomorrow" : "yesterday";
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}

/** A moment by her own clock: `11:00 pm on Friday 11 December`. */
export function momentHere(utc: string): string {
  const at = new Date(utc);
  const time = at.toLocaleTimeString("en", { hour: "numeric", minute: "2-digit" }).toLowerCase();
  const day = at.toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" }).replace(",", "");
  return `${time} on ${day}`;
}

/** `11:00 pm` of an hour such as 23:00. */
export function hourText(time: string): string {
  const [h = 0, m = 0] = time.split(":").map(Number);
  return new Date(2000, 0, 1, h, m).toLocaleTimeString("en", { hour: "numeric", minute: "2-digit" }).toLowerCase();
}

const NTH = ["first", "second", "third", "fourth", "last"];

function ordinal(n: number): string {
  if (n >= 11 && n <= 13) return `${n}th`;
  return `${n}${["th", "st", "nd", "rd"][n % 10] ?? "th"}`;
}

/** `every second Saturday`, `on the 1st of each month`, `on each month’s first Saturday`. */
export function repeatText(repeats: RepeatDoc, due: string): string {
  const weekday = dayOf(due).toLocaleDateString("en", { weekday: "long" });
  const until = repeats.until ? ` until ${shortDay(repeats.until)}` : "";
  if (repeats.every === "month-day") return `on the ${ordinal(repeats.number)} of each month${until}`;
  if (repeats.every === "month-week") return `on each month’s ${NTH[repeats.number - 1]} ${weekday}${until}`;
  const count = repeats.number === 1 ? "" : repeats.number === 2 ? "second " : `${ordinal(repeats.number)} `;
  return `every ${count}${weekday}${until}`;
}

/** How a call may come again, counted from its day. */
export function repeatChoices(due: string): readonly { value: string; label: string; repeats: RepeatDoc }[] {
  const date = dayOf(due).getDate();
  const week = Math.min(5, Math.ceil(date / 7));
  const choices: RepeatDoc[] = [
    { every: "weeks", number: 1 },
    { every: "weeks", number: 2 },
    { every: "weeks", number: 4 },
    { every: "month-day", number: date },
    { every: "month-week", number: week },
  ];
  return choices.map((repeats) => ({
    value: `${repeats.every} ${repeats.number}`,
    label: repeatText(repeats, due),
    repeats,
  }));
}

const KINDS: Record<string, string> = {
  challenge: "a challenge",
  kit: "a kit to use",
  scraplift: "a scraplift",
  hop: "a hop",
};

export const kindText = (call: CallDoc) => KINDS[call.kind ?? "challenge"] ?? "a challenge";

/** What is asked, in words; lengths in the call's own unit. */
export function askText(ask: NonNullable<CallDoc["asks"]>[number], unit: string): string {
  const size = `${ask.w} × ${ask.h} ${unit}`;
  switch (ask.what) {
    case "pages":
      return ask.count === 1 ? "One page" : "Two pages";
    case "page-size":
      return `A page of ${size}`;
    case "photos":
      return `${ask.count} photos at least`;
    case "large-photo":
      return `A photo of ${size} or larger`;
    case "sketch":
      return "The sketch";
    case "papers":
      return `${ask.count} papers${ask.kit ? ` of ${ask.kit}` : ""} at least`;
    case "kit":
      return `The kit ${ask.name}`;
    default:
      return ask.name ?? "";
  }
}
