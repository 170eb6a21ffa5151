import type { FaceDoc, PlacedPhotoDoc, PlanDoc, PrintDoc } from "@/api/client";
import { BlockBadge, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { withPrint } from "./model";

type Props = {
  plan: PlanDoc;
  print: PrintDoc;
  placed: PlacedPhotoDoc | undefined;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
};

/** A new area lies in the middle; it is put right on the print. */
const FRESH: FaceDoc = { x: 0.35, y: 0.35, w: 0.3, h: 0.3 };

/** What of the print must not be cut, and what something should hide. */
export function Areas({ plan, print, placed, change, mayChange }: Props) {
  const numbers = useBlockNumbers();
  const set = (field: "faces" | "covers", areas: readonly FaceDoc[], reason: string) =>
    change(withPrint(plan, print.id, { [field]: areas.length > 0 ? areas : undefined }), reason);
  const keep = print.faces ?? [];
  const cover = print.covers ?? [];
  const without = (areas: readonly FaceDoc[], n: number) => areas.filter((_, k) => k !== n);
  const hidden = (n: number) => placed?.covered.find((c) => c.area === n);
  return (
    <section aria-label="What to keep and what to hide" className="grid gap-1.5 text-[13px]">
      <ul className="grid gap-1">
        {keep.map((area, n) => (
          <li key={`keep-${area.x}-${area.y}-${area.w}`} className="flex items-center gap-2">
            <span className="inline-block h-3 w-3 border-2 border-pin" aria-hidden />
            <span className="flex-1">
              {placed?.cut.some((c) => c.area === n) ? (
                <span className="text-measure">to keep, and cut here</span>
              ) : placed ? (
                "kept whole"
              ) : (
                "to keep"
              )}
            </span>
            {mayChange && (
              <button
                type="button"
                className="button px-1.5 py-0"
                onClick={() => set("faces", without(keep, n), `print ${print.id}: nothing to keep there`)}
              >
                Remove<span className="sr-only"> area to keep {n + 1}</span>
              </button>
            )}
          </li>
        ))}
        {cover.map((area, n) => {
          const at = hidden(n);
          return (
            <li key={`cover-${area.x}-${area.y}-${area.w}`} className="flex items-center gap-2">
              <span className="inline-block h-3 w-3 border border-ink border-dashed" aria-hidden />
              <span className="flex-1">
                {at?.by ? (
                  <>
                    hidden by <BlockBadge number={numbers.get(at.by) ?? at.by} />
                  </>
                ) : at?.trimmed ? (
                  "trimmed off"
                ) : placed ? (
                  "nothing hides it yet"
                ) : (
                  "to hide"
                )}
              </span>
              {mayChange && (
                <button
                  type="button"
                  className="button px-1.5 py-0"
                  onClick={() => set("covers", without(cover, n), `print ${print.id}: nothing to hide there`)}
                >
                  Remove<span className="sr-only"> area to hide {n + 1}</span>
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {mayChange && (
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => set("faces", [...keep, FRESH], `print ${print.id}: something to keep`)}
          >
            Keep something
          </button>
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => set("covers", [...cover, FRESH], `print ${print.id}: something to hide`)}
          >
            Hide something
          </button>
        </div>
      )}
    </section>
  );
}
