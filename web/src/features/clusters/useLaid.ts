import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type LayoutDoc, type PlanDoc } from "@/api/client";
import { useMe } from "@/features/people/useMe";
import { withoutChecks } from "./model";

/** The clusters of a page as they lie, and what is seen on it, but for the checks that she never wants. The last answer stays on screen
 * until the next is there. */
export function useLaid(page: string, plan: PlanDoc, layout: LayoutDoc | undefined) {
  const never = useMe().data?.defaults.checks_off;
  const asked = useMemo(() => withoutChecks(plan, never ?? []), [plan, never]);
  return useQuery({
    queryKey: ["laid", page, asked, layout],
    queryFn: ({ signal }) => api.clustersLaid({ page, plan: asked, layout: layout as LayoutDoc }, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}
