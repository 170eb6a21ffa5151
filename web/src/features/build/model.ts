// What a maker decides and ticks at the Build station, as changes of the plan's section.

import type { BuildSectionDoc, BuildStepDoc, PlanDoc } from "@/api/client";

const withBuild = (plan: PlanDoc, change: Partial<BuildSectionDoc>): PlanDoc => {
  const says = ([, value]: [string, unknown]) => value !== null && value !== undefined;
  const build = Object.fromEntries(Object.entries({ ...plan.build, ...change }).filter(says));
  return { ...plan, build };
};

/** The plan with a step ticked, or its tick taken back. */
export function withDone(plan: PlanDoc, step: string, done: boolean): PlanDoc {
  const now = (plan.build?.done ?? []).filter((id) => id !== step);
  return withBuild(plan, { done: done ? [...now, step] : now });
}

/** Whether a step is ticked. */
export const isDone = (plan: PlanDoc, step: string) => (plan.build?.done ?? []).includes(step);

/** The plan with another school of gluing. */
export const withSchool = (plan: PlanDoc, school: string): PlanDoc => withBuild(plan, { school });

/** The plan with some work beside what it shows, or without it. */
export function withTechnique(plan: PlanDoc, technique: string, on: boolean): PlanDoc {
  const now = (plan.build?.techniques ?? []).filter((t) => t !== technique);
  return withBuild(plan, { techniques: on ? [...now, technique] : now });
}

/** The plan with a step one place earlier (-1) or later (1), all others in the order that is shown. */
export function withMoved(
  plan: PlanDoc,
  steps: readonly BuildStepDoc[],
  step: string,
  by: -1 | 1,
): PlanDoc | undefined {
  const ids = steps.map((s) => s.id);
  const at = ids.indexOf(step);
  const to = at + by;
  const other = ids[to];
  if (at < 0 || other === undefined) return undefined;
  ids[to] = step;
  ids[at] = other;
  return withBuild(plan, { order: ids });
}

/** The plan in the order that Metrosk gives. */
export const withoutOrder = (plan: PlanDoc): PlanDoc => withBuild(plan, { order: null });

/** The first step that is not ticked. */
export const nextStep = (plan: PlanDoc, steps: readonly BuildStepDoc[]) => steps.find((s) => !isDone(plan, s.id));

/** `2 h 27 min` */
export function timeText(minutes: number): string {
  const hours = Math.floor(minutes / 60);
  const rest = minutes % 60;
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}

/** How far into the order so many minutes reach: how many steps are done by then. */
export const within = (steps: readonly BuildStepDoc[], minutes: number) => steps.filter((s) => s.to <= minutes).length;

/** The short word of a step on the tape of time. */
export const shortWord = (step: BuildStepDoc): string => step.id.split(" ")[0] ?? step.id;
