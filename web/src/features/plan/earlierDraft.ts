// Steps that an earlier version of the program kept in this browser: whole plans of one fit request. They become patches.

import type { FitDoc, PageView, PlanDoc } from "@/api/client";
import { between } from "./patch";
import type { Draft, Step } from "./planState";
import { withFit } from "./sections";

type EarlierPlan = { fit: FitDoc };
type EarlierStep = { key: string; sent: boolean } & (
  | { kind: "write"; plan: EarlierPlan; reason: string }
  | { kind: "return"; to: number; plan: EarlierPlan }
  | { kind: "undo" }
  | { kind: "redo" }
);

/** A draft as it is kept today. All earlier steps were taken at the fit. */
export function broughtUp(draft: Draft, page: PageView): Draft {
  let plan: PlanDoc = page.plan;
  const queue = draft.queue.map((step): Step => {
    if (step.station) return step;
    const earlier = step as unknown as EarlierStep;
    const own = { key: earlier.key, sent: earlier.sent, station: "fit" };
    if (earlier.kind === "undo" || earlier.kind === "redo") return { ...own, kind: earlier.kind };
    const before = plan;
    plan = withFit(before, earlier.plan.fit);
    return earlier.kind === "return"
      ? { ...own, kind: "return", to: earlier.to, plan }
      : {
          ...own,
          kind: "write",
          reason: earlier.reason,
          patch: between(before, plan),
          inverse: between(plan, before),
        };
  });
  return { ...draft, queue };
}
