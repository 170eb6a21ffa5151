import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type LayoutDoc, type PlacedPhotosDoc, type PlanDoc } from "@/api/client";

/** What became of the prints on a layout. The last answer stays on screen until the next is there. */
export function usePlacedPhotos(plan: PlanDoc, layout: LayoutDoc | undefined) {
  const photos = useMemo(() => plan.photos ?? {}, [plan.photos]);
  const drawn = plan.sketch.sketch.blocks.filter((b) => b.kind === "photo").length;
  return useQuery({
    queryKey: ["placed-photos", plan.unit, drawn, photos, layout],
    queryFn: ({ signal }) =>
      api.placedPhotos(
        { unit: plan.unit, drawn, photos, layout: layout as LayoutDoc },
        signal,
      ) as Promise<PlacedPhotosDoc>,
    enabled: layout !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
}
