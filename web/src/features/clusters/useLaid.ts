import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type LayoutDoc, type PlanDoc } from "@/api/client";

/** The clusters of a page as they lie, and what is seen on it. The last answer stays on screen until the next is there. */
export function useLaid(page: string, plan: PlanDoc, layout: LayoutDoc | undefined) {
  return useQuery({
    queryKey: ["laid", page, plan, layout],
    queryFn: ({ signal }) => api.clustersLaid({ page, plan, layout: layout as LayoutDoc }, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}
