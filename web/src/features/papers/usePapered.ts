import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type LayoutDoc, type PageView, type PaperedPieceDoc, type PlanDoc } from "@/api/client";
import { printsOn } from "@/features/photos/model";

/** What papers come to on a layout: what shows, what is cut. The last answer stays on screen until the next is there. */
export function usePapered(plan: PlanDoc, layout: LayoutDoc | undefined) {
  const papers = useMemo(() => plan.papers ?? {}, [plan.papers]);
  return useQuery({
    queryKey: ["papered", plan.unit, papers, layout],
    queryFn: ({ signal }) => api.papered({ unit: plan.unit, papers, layout: layout as LayoutDoc }, signal),
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}

/** The stash's papers for a piece, best first. */
export function useRanked(
  page: PageView,
  plan: PlanDoc,
  layout: LayoutDoc | undefined,
  piece: PaperedPieceDoc | undefined,
) {
  const papers = useMemo(() => plan.papers ?? {}, [plan.papers]);
  const photos = useMemo(
    () => printsOn(plan).flatMap((p) => (p.picture ? [{ print: p.id, picture: p.picture }] : [])),
    [plan],
  );
  const kit = plan.call?.call?.asks?.find((a) => a.kit)?.kit;
  return useQuery({
    queryKey: ["ranked-papers", page.id, plan.unit, papers, layout, piece?.name, photos, kit],
    queryFn: ({ signal }) =>
      api.rankedPapers(
        {
          page: page.id,
          unit: plan.unit,
          papers,
          layout: layout as LayoutDoc,
          piece: piece?.name ?? "",
          photos,
          ...(kit ? { kit } : {}),
        },
        signal,
      ),
    enabled: layout !== undefined && piece !== undefined,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
}
