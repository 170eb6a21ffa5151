import { useEffect, useId, useState } from "react";
import { fromTicks, parseLength, rulerText, toTicks, type Unit } from "@/shared/lengths/length";

type Props = {
  label: string;
  value: number;
  unit: Unit;
  least?: number;
  most?: number;
  hideLabel?: boolean;
  /** The label goes into a first column of a grid, the field into a second. */
  inRow?: boolean;
  /** What stands behind the field. */
  after?: string;
  width?: string;
  onCommit: (value: number) => void;
};

/** A length typed as makers write it; committed with Enter or on leaving, and left alone while it can't be read. */
export function LengthField({
  label,
  value,
  unit,
  least = 0,
  most = 200,
  hideLabel,
  inRow,
  after,
  width = "5.2rem",
  onCommit,
}: Props) {
  const id = useId();
  const shown = rulerText(toTicks(value, unit), unit);
  const [text, setText] = useState(shown);
  const [error, setError] = useState("");
  useEffect(() => {
    setText(shown);
    setError("");
  }, [shown]);

  const commit = () => {
    if (text === shown) return setError("");
    const parsed = parseLength(text, unit);
    if ("error" in parsed) return setError(parsed.error);
    const found = fromTicks(parsed.ticks, unit);
    const limit = unit === "in" ? most : most * 25.4;
    if (found < least || found > limit) {
      return setError(`“${text}” is out of range; allowed is ${least} to ${limit} ${unit}`);
    }
    setError("");
    if (toTicks(value, unit) === parsed.ticks) setText(shown);
    else onCommit(found);
  };

  return (
    <span className={inRow ? "col-span-full grid grid-cols-subgrid items-center" : "inline-flex flex-col"}>
      <span className={inRow ? "contents" : "inline-flex items-center gap-1.5"}>
        <label htmlFor={id} className={hideLabel ? "sr-only" : "text-second"}>
          {label}
        </label>
        <span className="flex items-center gap-1.5">
          <input
            id={id}
            className="field text-right"
            style={{ width }}
            value={text}
            aria-invalid={error !== ""}
            aria-describedby={error ? `${id}-error` : undefined}
            onChange={(e) => setText(e.target.value)}
            onBlur={commit}
            onKeyDown={(e) => {
              if (e.key === "Enter") commit();
              if (e.key === "Escape") {
                setText(shown);
                setError("");
              }
            }}
          />
          {after && <span className="text-second">{after}</span>}
        </span>
      </span>
      {error && (
        <span
          id={`${id}-error`}
          role="alert"
          className={`mt-0.5 max-w-[20rem] text-[12px] text-measure ${inRow ? "col-start-2" : ""}`}
        >
          {error}
        </span>
      )}
    </span>
  );
}
