import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, type LayoutDoc, type PlanDoc } from "@/api/client";

/**
 * What is cut for a page: a plan at a glance, and then a better one, which she may stop looking for. The last answer stays on screen until the
 * next is there.
 */
export function useCuts(page: string, plan: PlanDoc, layout: LayoutDoc | undefined) {
  const papers = useMemo(() => plan.papers ?? {}, [plan.papers]);
  const cut = useMemo(() => plan.cut ?? {}, [plan.cut]);
  const asked = useMemo(
    () => ({ page, unit: plan.unit, papers, cut, layout: layout as LayoutDoc }),
    [page, plan.unit, papers, cut, layout],
  );
  // Stopped for this plan alone: once it changes a better one is looked for again.
  const [stoppedFor, setStoppedFor] = useState<typeof asked>();
  const shared = { placeholderData: keepPreviousData, staleTime: 30_000, gcTime: 60_000 };
  const full = useQuery({
    queryKey: ["page-cuts", asked],
    queryFn: ({ signal }) => api.pageCuts(asked, signal),
    enabled: layout !== undefined && stoppedFor !== asked,
    ...shared,
  });
  const isImproving = full.isFetching && stoppedFor !== asked;
  const glance = useQuery({
    queryKey: ["page-cuts-at-a-glance", asked],
    queryFn: ({ signal }) => api.pageCuts({ ...asked, at_a_glance: true }, signal),
    enabled: layout !== undefined && (full.data === undefined || full.isPlaceholderData),
    ...shared,
  });
  const better = full.isPlaceholderData || stoppedFor === asked ? undefined : full.data;
  const shown = better ?? (glance.isPlaceholderData ? undefined : glance.data) ?? full.data ?? glance.data;
  return { full, shown, isImproving, stop: () => setStoppedFor(asked) };
}
