import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type LayoutDoc } from "@/api/client";

/** What is seen on a layout before the glue. The last answer stays on screen until the next is there. */
export function useFindings(layout: LayoutDoc | undefined) {
  return useQuery({
    queryKey: ["checked", layout],
    queryFn: ({ signal }) => api.checkedLayout(layout as LayoutDoc, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}
