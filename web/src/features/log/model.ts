// What a maker writes at the Log station, as changes of the plan's section.

import type { LogEntryDoc, LogSectionDoc, PlanDoc } from "@/api/client";
import { patched } from "@/features/plan/patch";

/** What goes wrong, by kind, and what makers call it. */
export const WRONG: readonly (readonly [string, string])[] = [
  ["cut-short", "cut short"],
  ["glued-early", "glued too early"],
  ["letters-lacking", "letters lacking"],
  ["warped", "warped"],
  ["blot", "a blot"],
  ["crooked", "crooked"],
  ["other", "something else"],
];

export const wrongName = (what: string) => WRONG.find(([name]) => name === what)?.[1] ?? what;

/** What may stay out of the pack. */
export const PRIVATE: readonly (readonly [string, string])[] = [
  ["names", "names"],
  ["place", "the place"],
  ["date", "the date"],
];

/** What stays out where nobody said anything. */
const USUALLY_OUT = ["names", "place"];

export const leftOut = (plan: PlanDoc): readonly string[] => plan.log?.leave_out ?? USUALLY_OUT;

/** The plan with some of its log changed; what is null goes. */
export const withLog = (plan: PlanDoc, change: { [F in keyof LogSectionDoc]?: LogSectionDoc[F] | null }): PlanDoc =>
  patched(plan, { log: change });

/** The plan with something staying out of the pack, or told in it. */
export function withLeftOut(plan: PlanDoc, what: string, out: boolean): PlanDoc {
  const others = leftOut(plan).filter((w) => w !== what);
  return withLog(plan, { leave_out: out ? [...others, what] : others });
}

export const entriesOf = (plan: PlanDoc): readonly LogEntryDoc[] => plan.log?.entries ?? [];

/** The plan with an entry written, in place of an earlier one of that id. */
export function withEntry(plan: PlanDoc, entry: LogEntryDoc): PlanDoc {
  const others = entriesOf(plan).filter((e) => e.id !== entry.id);
  return withLog(plan, { entries: [...others, entry] });
}

/** The plan without an entry. */
export const withoutEntry = (plan: PlanDoc, id: string): PlanDoc =>
  withLog(plan, { entries: entriesOf(plan).filter((e) => e.id !== id) });

/** The entry that a tick at the Build station makes. */
export const stepEntry = (step: string, text: string, at: Date): LogEntryDoc => ({
  id: `step ${step}`,
  at: at.toISOString(),
  kind: "step",
  text,
});

/** What an entry says in the list. */
export function entryText(entry: LogEntryDoc): string {
  const said = entry.text?.trim() ?? "";
  if (entry.kind !== "wrong") return said;
  const what = capital(wrongName(entry.wrong ?? "other"));
  return said ? `${what}. ${said}` : `${what}.`;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
