import { useCallback } from "react";
import type { FitDoc, SketchDoc } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { fitOf, withFit } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { holdsFor } from "./holds";
import { SketchEditor } from "./SketchEditor";

const TURNS = [0, 90, 180, 270] as const;
const FLIPS = [
  { value: "none", label: "not flipped" },
  { value: "across", label: "left to right" },
  { value: "down", label: "top to bottom" },
] as const;

/** The sketch of a page: its lines, what is read from it, and whether it is turned or flipped for this page. The sketch in
 * the drawer stays as it is. */
export function SketchStation({ plan, changePlan }: StationProps) {
  const fit = fitOf(plan);
  const mayChange = useMayChange();
  const change = useCallback(
    (next: FitDoc, reason: string) => changePlan(withFit(plan, next), reason),
    [changePlan, plan],
  );
  const onSketch = (sketch: SketchDoc, reason: string) => change(holdsFor({ ...fit, sketch }), reason);
  const onePage = fit.sketch.canvas.pages === 1;
  const top = (
    <>
      <section aria-labelledby="turned" className="grid gap-2">
        <h2 id="turned">For this page</h2>
        <div className="flex flex-wrap gap-3">
          <label className="flex items-center gap-2">
            <span className="text-second">turned</span>
            <select
              className="field py-1"
              disabled={!mayChange}
              value={fit.turn ?? 0}
              onChange={(e) => change({ ...fit, turn: Number(e.target.value) }, `turned ${e.target.value}°`)}
            >
              {TURNS.filter((t) => onePage || t % 180 === 0).map((t) => (
                <option key={t} value={t}>
                  {t === 0 ? "as drawn" : `${t}°`}
                </option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2">
            <span className="text-second">flipped</span>
            <select
              className="field py-1"
              disabled={!mayChange}
              value={fit.flip ?? "none"}
              onChange={(e) => change({ ...fit, flip: e.target.value }, "flipped")}
            >
              {FLIPS.map((f) => (
                <option key={f.value} value={f.value}>
                  {f.label}
                </option>
              ))}
            </select>
          </label>
        </div>
      </section>
    </>
  );
  return (
    <SketchEditor sketch={fit.sketch} onChange={onSketch} mayChange={mayChange} top={top} fit={fit} onFit={change} />
  );
}
