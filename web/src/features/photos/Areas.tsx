import { useMutation } from "@tanstack/react-query";
import { api, type FaceDoc, type PlacedPhotoDoc, type PlanDoc, type PrintDoc } from "@/api/client";
import { BlockBadge, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { areaWithin, withPrint } from "./model";

type Props = {
  plan: PlanDoc;
  print: PrintDoc;
  placed: PlacedPhotoDoc | undefined;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
};

/** A new area lies in the middle; it is put right on the print. */
const FRESH: FaceDoc = { x: 0.35, y: 0.35, w: 0.3, h: 0.3 };

/** An area of an upright picture as it lies on a print that was turned clockwise. */
function turnedArea(area: FaceDoc, turned: number): FaceDoc {
  const quarter = (a: FaceDoc): FaceDoc => ({ x: 1 - a.y - a.h, y: a.x, w: a.h, h: a.w });
  const all = Array.from({ length: turned / 90 }, () => quarter);
  return areaWithin(all.reduce((a, turn) => turn(a), area));
}

/** What of the print must not be cut, and what something should hide. */
export function Areas({ plan, print, placed, change, mayChange }: Props) {
  const numbers = useBlockNumbers();
  const set = (field: "faces" | "covers", areas: readonly FaceDoc[], reason: string) =>
    change(withPrint(plan, print.id, { [field]: areas.length > 0 ? areas : undefined }), reason);
  const keep = print.faces ?? [];
  const cover = print.covers ?? [];
  const without = (areas: readonly FaceDoc[], n: number) => areas.filter((_, k) => k !== n);
  const hidden = (n: number) => placed?.covered.find((c) => c.area === n);
  const suggest = useMutation({
    mutationFn: (picture: string) => api.whatMatters(picture),
    onSuccess: (areas) => {
      const turned = areas.map((a) => turnedArea(a, print.turned ?? 0));
      if (turned.length > 0) set("faces", [...keep, ...turned], `print ${print.id}: areas to keep suggested`);
    },
  });
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
      {suggest.isSuccess && suggest.data.length === 0 && (
        <p className="text-second">Nothing stands out in it; mark what matters yourself.</p>
      )}
      {suggest.error && <p className="text-measure">{suggest.error.message}</p>}
      {mayChange && (
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => set("faces", [...keep, FRESH], `print ${print.id}: something to keep`)}
          >
            Keep something
          </button>
          {print.picture && (
            <button
              type="button"
              className="button px-2 py-0.5"
              disabled={suggest.isPending}
              onClick={() => suggest.mutate(print.picture as string)}
            >
              Suggest what to keep
            </button>
          )}
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() =>
              change(
                withPrint(plan, print.id, { mark: print.mark ? undefined : { x: 0.5, y: 0.5 } }),
                print.mark ? `print ${print.id}: no point matters` : `print ${print.id}: a point matters`,
              )
            }
          >
            {print.mark ? "No point matters" : "Mark the point that matters"}
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
