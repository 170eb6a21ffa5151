import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type FitDoc, type ProposalDoc } from "@/api/client";

/** All ways that a request can go, best first, whichever of them is chosen. The last answer stays on screen until the next is there, so the page never goes blank. */
export function useProposals(fit: FitDoc, enabled = true) {
  // What lifts photos, and how thick that may be, moves nothing.
  const {
    approach: _,
    emphasis: __,
    lift: ___,
    room: ____,
    ...all
  } = fit as FitDoc & { lift?: unknown; room?: unknown };
  return useQuery({
    queryKey: ["fit", all],
    queryFn: ({ signal }) => api.fit(all, signal),
    enabled,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
    retry: (failures, error) => failures < 3 && !("problem" in error),
  });
}

/** The chosen way among the proposals; the best where none is chosen. */
export function chosenWay(fit: FitDoc, proposals: readonly ProposalDoc[]): ProposalDoc | undefined {
  if (!fit.approach || fit.approach === "auto") return proposals[0];
  const by = proposals.filter((p) => p.approach === fit.approach);
  return by.find((p) => (p.emphasis ?? "balance") === (fit.emphasis ?? "balance")) ?? by[0];
}
