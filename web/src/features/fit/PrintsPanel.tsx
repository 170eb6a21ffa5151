import { Link } from "@tanstack/react-router";
import { Fragment, useState } from "react";
import type { FitDoc, PrintDoc } from "@/api/client";
import { LengthField } from "@/shared/ui/LengthField";
import { MOST_PHOTOS, unitOf } from "./model";
import {
  faceSquares,
  isMarked,
  printsOf,
  startPrints,
  withFace,
  withFocal,
  withoutPrints,
  withPhotoRule,
  withPrintLess,
  withPrintMore,
  withPrintSize,
  withPrintTurned,
} from "./prints";

const SIDES = [
  { side: "w", name: "width" },
  { side: "h", name: "height" },
] as const;

/** Whether a print has what only the Photos station shows. */
const isOfTheStation = (p: PrintDoc) => Boolean(p.picture || p.file || p.aside || p.place || p.crop || p.covers);

type Props = { fit: FitDoc; change: (fit: FitDoc, reason: string) => void };

/** The prints she has: their sizes, which is the main one, what must not be cut on them. */
export function PrintsPanel({ fit, change }: Props) {
  const prints = printsOf(fit);
  const [open, setOpen] = useState<string>();
  if (!prints) {
    return (
      <button
        type="button"
        className="button justify-self-start"
        onClick={() => change(startPrints(fit), "prints listed")}
      >
        List my prints…
      </button>
    );
  }
  if (prints.some(isOfTheStation)) {
    const placed = prints.filter((p) => !p.aside).length;
    return (
      <p>
        {placed} of {prints.length} {prints.length === 1 ? "print has" : "prints have"} a place.{" "}
        <Link
          from="/pages/$pageId/$station"
          to="/pages/$pageId/$station"
          params={(all) => ({ ...all, station: "photos" })}
          className="underline"
        >
          See the prints
        </Link>
      </p>
    );
  }
  const unit = unitOf(fit);
  const focal = prints.find((p) => p.focal)?.id;
  return (
    <fieldset className="grid gap-1.5 rounded-[3px] border border-hairline p-2">
      <legend className="px-1 text-second">
        My prints as they will be looked at, in {unit === "in" ? "inches" : "mm"}
      </legend>
      <ul className="grid gap-1.5">
        {prints.map((print) => (
          <li key={print.id} className="grid gap-1.5">
            <div className="flex flex-wrap items-center gap-1.5">
              <span className="w-[26px] font-bold">{print.id}</span>
              {SIDES.map(({ side, name }) => (
                <Fragment key={side}>
                  {side === "h" && "×"}
                  <LengthField
                    label={`${print.id} ${name}`}
                    hideLabel
                    value={print[side]}
                    unit={unit}
                    least={0.125}
                    most={40}
                    width="3.4rem"
                    onCommit={(v) => change(withPrintSize(fit, print.id, side, v), `print ${print.id} another size`)}
                  />
                </Fragment>
              ))}
              <button
                type="button"
                className="button px-1.5 py-0.5"
                aria-label={`Turn ${print.id} a quarter`}
                onClick={() => change(withPrintTurned(fit, print.id), `print ${print.id} turned`)}
              >
                turn
              </button>
              <button
                type="button"
                className="button px-1.5 py-0.5"
                aria-expanded={open === print.id}
                onClick={() => setOpen(open === print.id ? undefined : print.id)}
              >
                {(print.faces?.length ?? 0) > 0 ? "faces ✓" : "faces"}
                <span className="sr-only"> of {print.id}</span>
              </button>
              <button
                type="button"
                className="button px-1.5 py-0.5"
                disabled={prints.length < 2}
                aria-label={`Take ${print.id} off the list`}
                onClick={() => change(withPrintLess(fit, print.id), `print ${print.id} taken off`)}
              >
                −
              </button>
            </div>
            {open === print.id && <Faces fit={fit} print={print} change={change} />}
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-center gap-1.5">
        <button
          type="button"
          className="button"
          disabled={prints.length >= MOST_PHOTOS}
          onClick={() => change(withPrintMore(fit), "a print more")}
        >
          One print more
        </button>
        <button type="button" className="button" onClick={() => change(withoutPrints(fit), "photos counted")}>
          Count only
        </button>
      </div>
      <label className="flex items-center gap-1.5">
        <span className="text-second">main photo</span>
        <select
          className="field py-1"
          value={focal ?? ""}
          onChange={(e) =>
            change(withFocal(fit, e.target.value || undefined), `main photo ${e.target.value || "open"}`)
          }
        >
          <option value="">none</option>
          {prints.map((p) => (
            <option key={p.id} value={p.id}>
              {p.id}
            </option>
          ))}
        </select>
      </label>
      <label className="flex items-center gap-1.5">
        <span className="text-second">prints</span>
        <select
          className="field py-1"
          aria-label="Whether prints may be trimmed"
          value={fit.photo_rule ?? "trim"}
          onChange={(e) =>
            change(
              withPhotoRule(fit, e.target.value === "whole"),
              e.target.value === "whole" ? "prints keep their size" : "prints may be trimmed",
            )
          }
        >
          <option value="trim">may be trimmed</option>
          <option value="whole">keep their size</option>
        </select>
      </label>
    </fieldset>
  );
}

/** A print to scale, in squares: those with a face on them are not trimmed away, and the fold keeps off them. */
function Faces({ fit, print, change }: Props & { print: PrintDoc }) {
  const squares = faceSquares(print, unitOf(fit));
  const size = 132 / Math.max(print.w, print.h);
  const cells = Array.from({ length: squares.cols * squares.rows }, (_, n) => ({
    col: n % squares.cols,
    row: Math.floor(n / squares.cols),
  }));
  return (
    <div className="flex flex-wrap items-start gap-2">
      <fieldset
        aria-label={`Faces on ${print.id}`}
        className="grid border border-ink"
        style={{
          width: Math.max(print.w * size, 48),
          height: Math.max(print.h * size, 48),
          gridTemplateColumns: `repeat(${squares.cols}, 1fr)`,
          gridTemplateRows: `repeat(${squares.rows}, 1fr)`,
        }}
      >
        {cells.map(({ col, row }) => {
          const marked = isMarked(print, col, row, squares);
          return (
            <button
              key={`${col}-${row}`}
              type="button"
              aria-pressed={marked}
              aria-label={`column ${col + 1}, row ${row + 1}`}
              className={`cursor-pointer border border-hairline text-[11px] leading-none ${marked ? "bg-ink text-sheet" : "bg-sheet text-second"}`}
              onClick={() =>
                change(
                  withFace(fit, print.id, col, row),
                  `a face on ${print.id} ${marked ? "no longer marked" : "marked"}`,
                )
              }
            >
              {marked ? "●" : ""}
            </button>
          );
        })}
      </fieldset>
      <p className="max-w-[170px] text-[13px] text-second">
        Mark the squares that show a face, or anything else that must stay whole. They are not trimmed away, and where
        photos may cross the fold it runs beside them.
      </p>
    </div>
  );
}
