import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type LayoutDoc, type PlanDoc, type WordsSectionDoc } from "@/api/client";

/** How a page's words come out. The last answer stays on screen until the next is there. */
export function useWords(page: string, plan: PlanDoc, words: WordsSectionDoc, layout: LayoutDoc | undefined) {
  const { unit, photos } = plan;
  return useQuery({
    queryKey: ["words-set", page, unit, photos, words, layout],
    queryFn: ({ signal }) => api.wordsSet({ page, unit, words, plan, layout: layout as LayoutDoc }, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
    gcTime: 60_000,
  });
}
