import { rulerText, toTicks, type Unit } from "@/shared/lengths/length";
import type { Said } from "./PictureForm";

/** A page's width and height, in inches. */
export type PageSize = { w: number; h: number };

type Props = {
  sizes: readonly PageSize[];
  unit: Unit;
  said: Said;
  onRead: (width: string, height: string) => void;
};

/** As a maker would type it: papers that are made in millimetres keep them. */
export function lengthText(inches: number, unit: Unit): string {
  const mm = Math.round(inches * 25.4);
  if (unit === "mm") return String(mm);
  return (inches * 8) % 1 === 0 ? rulerText(toTicks(inches, "in"), "in") : `${mm} mm`;
}

/** Sizes of paper that have the outline's proportions, where the size that was said has others. */
export function LooksLike({ sizes, unit, said, onRead }: Props) {
  if (sizes.length === 0) return null;
  return (
    <div role="status" className="grid gap-1.5 rounded-[3px] border border-pin p-2">
      <p>
        The page in the picture has other proportions than {said.width} × {said.height}. It looks like:
      </p>
      <span className="flex flex-wrap gap-1.5">
        {sizes.map((s) => {
          const [w, h] = [lengthText(s.w, unit), lengthText(s.h, unit)];
          return (
            <button key={`${s.w}-${s.h}`} type="button" className="button" onClick={() => onRead(w, h)}>
              Read as {w} × {h}
            </button>
          );
        })}
      </span>
    </div>
  );
}
