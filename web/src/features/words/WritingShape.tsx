import type { WritingShapeDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { LengthField } from "@/shared/ui/LengthField";

const COLUMNS = [2, 3, 4] as const;

type Props = {
  shape: WritingShapeDoc | null | undefined;
  unit: Unit;
  onChange: (shape: WritingShapeDoc | null, reason: string) => void;
};

/** How writing runs: line under line, in columns, on strips, on a card's printed lines, round the page. */
export function WritingShape({ shape, unit, onChange }: Props) {
  const kind = shape?.kind ?? "lines";
  const value = kind === "columns" ? `columns ${shape?.count ?? 2}` : kind;
  const lines = shape?.lines ?? 7;
  const apart = shape?.apart ?? (unit === "mm" ? 7 : 0.25);
  const choose = (chosen: string, reason: string) => {
    const [next, count] = chosen.split(" ");
    if (next === "columns") onChange({ kind: "columns", count: Number(count) }, reason);
    else if (next === "printed") onChange({ kind: "printed", lines, apart }, reason);
    else onChange(next && next !== "lines" ? { kind: next } : null, reason);
  };
  return (
    <div className="grid gap-1">
      <label className="flex items-center gap-1.5">
        runs
        <select
          className="field min-w-0 flex-1"
          aria-label="How the writing runs"
          value={value}
          onChange={(e) => choose(e.target.value, `writing: ${e.target.selectedOptions[0]?.text ?? ""}`)}
        >
          <option value="lines">line under line</option>
          {COLUMNS.map((n) => (
            <option key={n} value={`columns ${n}`}>
              in {n} columns
            </option>
          ))}
          <option value="strips">on strips, cut line by line</option>
          <option value="printed">on the printed lines of a card or tag</option>
          <option value="edge">round the page’s edge</option>
        </select>
      </label>
      {kind === "printed" && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <label className="flex items-center gap-1.5">
            lines on it
            <input
              className="field w-16 px-2"
              type="number"
              min={1}
              max={100}
              value={lines}
              onChange={(e) => {
                const count = Math.round(e.target.valueAsNumber);
                if (count >= 1 && count <= 100) onChange({ kind: "printed", lines: count, apart }, "lines of the card");
              }}
            />
          </label>
          <LengthField
            label="apart by"
            value={apart}
            unit={unit}
            least={unit === "mm" ? 1.6 : 0.0625}
            most={unit === "mm" ? 100 : 4}
            onCommit={(next) => onChange({ kind: "printed", lines, apart: next }, "how far the card’s lines are apart")}
          />
        </div>
      )}
    </div>
  );
}
