// A plan's sections and the fit request that three of them make together.

import type { FitDoc, PlanDoc } from "@/api/client";
import { between, patched } from "./patch";

/** Which section holds which field of a fit request; what is not named here is decided at the fit. */
const SECTION_OF: Record<string, "sketch" | "photos"> = {
  sketch: "sketch",
  turn: "sketch",
  flip: "sketch",
  keep: "sketch",
  readings: "sketch",
  photos: "photos",
  photo_rule: "photos",
  mats: "photos",
  lift: "photos",
  room: "photos",
};

const made = new WeakMap<PlanDoc, FitDoc>();

/** The fit request of a plan: the same object for the same plan. */
export function fitOf(plan: PlanDoc): FitDoc {
  const known = made.get(plan);
  if (known) return known;
  const of = (section: object | null | undefined) => {
    const { mark: _, grounds: __, ...decided } = (section ?? {}) as Record<string, unknown>;
    return decided;
  };
  const fit = {
    format: "metrosk-fit/1",
    unit: plan.unit,
    ...of(plan.sketch),
    ...of(plan.photos),
    ...of(plan.fit),
  } as unknown as FitDoc;
  made.set(plan, fit);
  return fit;
}

/** The plan with another fit request: each field goes to its section, and sections that stay the same stay the same object. */
export function withFit(plan: PlanDoc, fit: FitDoc): PlanDoc {
  const { format: _, unit: from, ...before } = fitOf(plan);
  const { format: __, unit, ...after } = fit;
  const patch: Record<string, Record<string, unknown>> = {};
  for (const [name, set] of Object.entries(between(before, after))) {
    const section = SECTION_OF[name] ?? "fit";
    patch[section] = { ...patch[section], [name]: set };
  }
  return patched(plan, unit === from ? patch : { ...patch, unit });
}
