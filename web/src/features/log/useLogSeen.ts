import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api } from "@/api/client";

/** What a page's log comes to, as it is saved. */
export function useLogSeen(page: string, revision: number) {
  return useQuery({
    queryKey: ["log", page, revision],
    queryFn: ({ signal }) => api.logSeen(page, signal),
    placeholderData: keepPreviousData,
  });
}
