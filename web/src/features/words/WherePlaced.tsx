import type { LayoutDoc, WordsPlaceDoc } from "@/api/client";
import { useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import type { Unit } from "@/shared/lengths/length";
import { LengthField } from "@/shared/ui/LengthField";
import { placeSaid } from "./model";

type SizeDoc = { w: number; h: number };

type Where = { block?: string | null; space?: SizeDoc | null };

type Props = {
  /** What is placed: "the title", "the writing". */
  what: string;
  places: readonly WordsPlaceDoc[];
  canvas: LayoutDoc["canvas"];
  where: Where | undefined;
  /** The place that it has now. */
  at: { block?: string | null; space: SizeDoc } | null;
  unit: Unit;
  onChange: (change: Where, reason: string) => void;
};

/** Where words stand: in a block, on a photo beside what stays in sight, where nothing lies; and in a space of her own size there. */
export function WherePlaced({ what, places, canvas, where, at, unit, onChange }: Props) {
  const numbers = useBlockNumbers();
  const said = (place: WordsPlaceDoc) => placeSaid(place, numbers.get(place.key), canvas);
  const known = places.some((p) => p.key === where?.block);
  const own = where?.space ?? undefined;
  const least = unit === "mm" ? 6 : 0.25;
  const most = unit === "mm" ? 1500 : 60;
  return (
    <div className="grid gap-1">
      <label className="flex items-center gap-1.5">
        where
        <select
          className="field min-w-0 flex-1"
          aria-label={`Where ${what} stands`}
          value={known ? (where?.block ?? "") : ""}
          onChange={(e) => {
            const place = places.find((p) => p.key === e.target.value);
            onChange(
              { block: place?.key ?? null, space: null },
              `${what} ${place ? said(place) : "where the sketch has it"}`,
            );
          }}
        >
          <option value="">where the sketch has it</option>
          {places.map((place) => (
            <option key={place.key} value={place.key}>
              {said(place)}
            </option>
          ))}
        </select>
      </label>
      {at && (
        <details open={own !== undefined}>
          <summary className="cursor-pointer text-second">A space of its own size</summary>
          <div className="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
            {(["w", "h"] as const).map((side) => (
              <LengthField
                key={side}
                label={side === "w" ? "wide" : "high"}
                value={at.space[side]}
                unit={unit}
                least={least}
                most={most}
                onCommit={(value) =>
                  onChange(
                    { space: { w: at.space.w, h: at.space.h, [side]: value } },
                    `the size of the space for ${what}`,
                  )
                }
              />
            ))}
            {own && (
              <button
                type="button"
                className="button px-2 py-0.5 text-[13px]"
                onClick={() => onChange({ space: null }, `${what} in all of its place`)}
              >
                All of the place
              </button>
            )}
          </div>
        </details>
      )}
    </div>
  );
}
