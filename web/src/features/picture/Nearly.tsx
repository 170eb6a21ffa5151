import { useQuery } from "@tanstack/react-query";
import { api, type NearView, type SketchDoc } from "@/api/client";
import { unitOf } from "@/features/sketch/model";
import { NearLines } from "@/features/sketch/NearLines";

type Props = { sketch: SketchDoc; onChange: (sketch: SketchDoc) => void };

/** Edges of the sketch that nearly agree, each offered to be made one line. */
export function Nearly({ sketch, onChange }: Props) {
  const lines = useQuery({
    queryKey: ["lines", sketch],
    queryFn: () => api.lines(sketch),
    placeholderData: (before) => before,
    gcTime: 10_000,
  });
  const near = (lines.data?.reading.near ?? []) as readonly NearView[];
  return <NearLines near={near} sketch={sketch} unit={unitOf(sketch)} onChange={(next) => onChange(next)} />;
}
