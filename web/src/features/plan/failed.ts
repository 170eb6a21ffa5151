import { ApiError } from "@/api/client";
import type { PlanEvent, Step } from "./planState";

/** Answers after which the same may go well a moment later: the server is busy, slow, going down, or its database is away. */
const LATER = [408, 429, 502, 503, 504];

/** What a step that failed means. A fault of the program would be one again: it is told, not tried for ever. */
export function failed(error: unknown, step: Pick<Step, "key">): PlanEvent {
  const problem = error instanceof ApiError ? error.problem : undefined;
  if (!problem || LATER.includes(problem.status)) return { type: "offline" };
  if (problem.status === 409 && problem.newest) return { type: "conflict", newest: problem.newest };
  if (problem.status === 409) return { type: "nothing", key: step.key, why: problem.detail };
  const first = problem.findings?.[0];
  return {
    type: "refused",
    why: first ? `${first.path}: found ${first.found}; allowed is ${first.allowed}` : problem.detail,
  };
}
