import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type LayoutDoc, type WordsSectionDoc } from "@/api/client";

/** How a page's words come out. The last answer stays on screen until the next is there. */
export function useWords(page: string, unit: string, words: WordsSectionDoc, layout: LayoutDoc | undefined) {
  return useQuery({
    queryKey: ["words-set", page, unit, words, layout],
    queryFn: ({ signal }) => api.wordsSet({ page, unit, words, layout: layout as LayoutDoc }, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
    gcTime: 60_000,
  });
}
