import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type FitDoc, type ProposalDoc } from "@/api/client";

/** All ways that a request can go, best first, whichever of them is chosen. The last answer stays on screen until the next is there, so the page never goes blank. */
export function useProposals(fit: FitDoc, enabled = true) {
  const { approach: _, ...all } = fit;
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
  return fit.approach && fit.approach !== "auto" ? proposals.find((p) => p.approach === fit.approach) : proposals[0];
}
