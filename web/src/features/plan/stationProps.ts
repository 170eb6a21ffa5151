import type { PageView, PlanDoc } from "@/api/client";

/** What a station is given. */
export type StationProps = {
  page: PageView;
  plan: PlanDoc;
  /** Whether all that is shown is saved. */
  saved: boolean;
  changePlan: (plan: PlanDoc, reason: string) => void;
  undo: () => void;
  redo: () => void;
  returnTo: (revision: number, plan: PlanDoc) => void;
};
