import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type LayoutDoc, type PlanDoc } from "@/api/client";

/** The steps of a page in their order. The last answer stays on screen until the next is there. */
export function useBuilt(plan: PlanDoc, layout: LayoutDoc | undefined) {
  return useQuery({
    queryKey: ["built", plan, layout],
    queryFn: ({ signal }) => api.buildOrdered({ plan, layout: layout as LayoutDoc }, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}
