import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type LayoutDoc, type PlanDoc } from "@/api/client";

/** What is cut for a page. The last answer stays on screen until the next is there. */
export function useCuts(page: string, plan: PlanDoc, layout: LayoutDoc | undefined) {
  const papers = useMemo(() => plan.papers ?? {}, [plan.papers]);
  const cut = useMemo(() => plan.cut ?? {}, [plan.cut]);
  return useQuery({
    queryKey: ["page-cuts", page, plan.unit, papers, cut, layout],
    queryFn: ({ signal }) => api.pageCuts({ page, unit: plan.unit, papers, cut, layout: layout as LayoutDoc }, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
    gcTime: 60_000,
  });
}
