import { useEffect } from "react";
import { onTold, type Told } from "./stream";

/** Whether something told may be news of these jobs. A job may be done before its id is known here, so the end of any job is. */
export function isJobNews(told: Told, jobs: readonly string[]): boolean {
  if (told.kind === "again") return true;
  const { thing, state } = told.event;
  return jobs.includes(thing) || state === "done" || state === "failed" || state === "cancelled";
}

/** Looks again whenever there may be news of these jobs. */
export function useJobNews(jobs: readonly string[], look: () => void) {
  const all = jobs.join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: it looks at what is there when something is told
  useEffect(
    () =>
      onTold((told) => {
        if (isJobNews(told, jobs)) look();
      }),
    [all, look],
  );
}
