import { useState } from "react";
import type { SketchDoc } from "@/api/client";
import { Field } from "@/shared/ui/Field";

type Origin = { how?: string; maker?: string; note?: string; after?: readonly string[] };
type Parts = { origin?: Origin; swatches?: readonly string[] };

const HOW: readonly { value: string; label: string }[] = [
  { value: "own", label: "my own" },
  { value: "challenge", label: "a published sketch" },
  { value: "scraplift", label: "lifted from a finished page" },
];

/** Whether it was begun over a finished page. */
export function isLifted(sketch: SketchDoc): boolean {
  return (sketch as Parts).origin?.how === "scraplift";
}

type Props = { sketch: SketchDoc; mayChange: boolean; onChange: (sketch: SketchDoc) => void };

/** Where a sketch comes from and whom a page from it credits; the colours of the page it was lifted from. */
export function OriginFields({ sketch, mayChange, onChange }: Props) {
  const { origin = {}, swatches = [] } = sketch as Parts;
  const [after, setAfter] = useState((origin.after ?? []).join(", "));
  const change = (next: Partial<Origin>) => onChange({ ...sketch, origin: { ...origin, ...next } } as SketchDoc);
  return (
    <details open={isLifted(sketch)} className="border-hairline border-t py-1">
      <summary className="cursor-pointer font-semibold">Where it comes from</summary>
      <div className="mt-1 grid gap-2">
        <label className="grid gap-1">
          <span className="font-medium">It is</span>
          <select
            className="field py-1.5"
            disabled={!mayChange}
            value={origin.how ?? "own"}
            onChange={(e) => change({ how: e.target.value })}
          >
            {HOW.map((h) => (
              <option key={h.value} value={h.value}>
                {h.label}
              </option>
            ))}
          </select>
        </label>
        <Field
          label="Made by"
          value={origin.maker ?? ""}
          maxLength={120}
          readOnly={!mayChange}
          onChange={(e) => change({ maker: e.target.value })}
        />
        <Field
          label="After, oldest first"
          help="Earlier makers of a hop, with commas. They stay with every page made from it."
          value={after}
          maxLength={400}
          readOnly={!mayChange}
          onChange={(e) => {
            setAfter(e.target.value);
            change({
              after: e.target.value
                .split(",")
                .map((t) => t.trim())
                .filter(Boolean),
            });
          }}
        />
        {swatches.length > 0 && (
          <div>
            <h3 className="font-medium">Colours of the page</h3>
            <ul className="mt-1 flex flex-wrap gap-1.5">
              {swatches.map((s) => (
                <li key={s} className="grid w-[60px] gap-0.5 text-[12px]">
                  <span className="block h-[26px] border border-ink" style={{ background: s }} />
                  {s}
                </li>
              ))}
            </ul>
          </div>
        )}
      </div>
    </details>
  );
}
