import type { StashItemDoc } from "@/api/client";
import { usePaperFills } from "@/shared/drawing/papers";
import { lookOf } from "./looks";

/** A bit of a paper, at a scale in pixels an inch. */
export function PaperSwatch({
  item,
  side,
  width,
  height,
  perInch,
}: {
  item: StashItemDoc;
  side: string | null | undefined;
  width: number;
  height: number;
  perInch: number;
}) {
  const look = lookOf(item, side, "in");
  const { defs, fill } = usePaperFills([look], perInch);
  return (
    <svg width={width} height={height} aria-hidden="true" className="block shrink-0">
      <defs>{defs}</defs>
      <rect x={0.5} y={0.5} width={width - 1} height={height - 1} fill={fill(look)} stroke="#51617a" />
    </svg>
  );
}
