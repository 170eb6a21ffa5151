import { useState } from "react";
import type { FitDoc, LinkDoc } from "@/api/client";
import { added } from "./holds";

const SORTS: readonly { value: string; label: string; what: string; along?: string }[] = [
  { value: "left", label: "left edges on one line", what: "line", along: "left" },
  { value: "right", label: "right edges on one line", what: "line", along: "right" },
  { value: "top", label: "top edges on one line", what: "line", along: "top" },
  { value: "bottom", label: "bottom edges on one line", what: "line", along: "bottom" },
  { value: "centre-x", label: "centres on one line, up and down", what: "line", along: "centre-x" },
  { value: "centre-y", label: "centres on one line, across", what: "line", along: "centre-y" },
  { value: "width", label: "equally wide", what: "equal", along: "width" },
  { value: "height", label: "equally high", what: "equal", along: "height" },
  { value: "touch", label: "touching", what: "touch" },
  { value: "across", label: "images of each other, left and right", what: "mirrored", along: "across" },
];

type Props = { fit: FitDoc; onFit: (fit: FitDoc, reason: string) => void };

/** A reading that she adds herself: two blocks, and what they are to each other. */
export function AddReading({ fit, onFit }: Props) {
  const ids = fit.sketch.blocks.map((b) => b.id);
  const [a, setA] = useState("");
  const [b, setB] = useState("");
  const [sort, setSort] = useState("left");
  const first = ids.includes(a) ? a : (ids[0] ?? "");
  const second = ids.includes(b) ? b : (ids[1] ?? "");
  const chosen = SORTS.find((s) => s.value === sort);
  if (ids.length < 2 || !chosen) return null;
  const link: LinkDoc = { what: chosen.what, ...(chosen.along && { along: chosen.along }), blocks: [first, second] };
  return (
    <details className="border-hairline border-t py-1">
      <summary className="cursor-pointer font-semibold">Add one</summary>
      <div className="mt-1 grid gap-1.5">
        <div className="flex gap-1.5">
          <Pick label="first block" value={first} ids={ids} onPick={setA} />
          <Pick label="second block" value={second} ids={ids} onPick={setB} />
        </div>
        <select
          aria-label="what they are to each other"
          className="field py-1"
          value={sort}
          onChange={(e) => setSort(e.target.value)}
        >
          {SORTS.map((s) => (
            <option key={s.value} value={s.value}>
              {s.label}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="button justify-self-start"
          disabled={first === second}
          onClick={() => onFit(added(fit, link), "a reading added")}
        >
          Hold to it
        </button>
      </div>
    </details>
  );
}

function Pick({
  label,
  value,
  ids,
  onPick,
}: {
  label: string;
  value: string;
  ids: readonly string[];
  onPick: (id: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="field min-w-0 grow py-1"
      value={value}
      onChange={(e) => onPick(e.target.value)}
    >
      {ids.map((id) => (
        <option key={id} value={id}>
          {id}
        </option>
      ))}
    </select>
  );
}
