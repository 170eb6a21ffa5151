import type { CutSheetDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { Length, Sentence } from "@/shared/ui/Length";
import { finished, howOften, stepAt } from "./model";

type Props = {
  sheet: CutSheetDoc;
  name: string;
  unit: Unit;
  labelOf: (piece: string) => string;
  onTick: ((done: number) => void) | undefined;
  onWrong: ((piece: string) => void) | undefined;
};

/** A sheet's cuts as trimmer settings, in order; each is ticked off as a whole. */
export function Steps({ sheet, name, unit, labelOf, onTick, onWrong }: Props) {
  const at = stepAt(sheet);
  const last = finished(sheet).find((piece) => !sheet.wrong.includes(piece));
  return (
    <section aria-labelledby="steps" className="grid gap-2">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h3 id="steps">
          {name}, {sheet.steps.length === 1 ? "one step" : `${sheet.steps.length} steps`}
        </h3>
        <span className="text-[13px] text-second">settings in {unit === "mm" ? "millimetres" : "inches"}</span>
      </div>
      {sheet.steps.length === 0 && <p>Used whole: nothing to cut.</p>}
      <ol className="grid">
        {sheet.steps.map((step, n) => {
          const done = n < at;
          return (
            <li
              key={step.first}
              className={`grid grid-cols-[28px_76px_minmax(0,1fr)_auto] items-center gap-2 border-hairline border-t py-1.5 ${n === at ? "bg-measure/10" : ""}`}
            >
              <span
                className={`grid h-6 w-6 place-items-center rounded-full font-bold text-[13px] text-sheet ${done ? "bg-second" : "bg-measure"}`}
              >
                {n + 1}
              </span>
              <span className="text-right font-bold font-heading text-[24px]">
                <Length value={step.setting} unit={unit} />
              </span>
              <span className="text-[13px]">
                <strong>{howOften(step.times)}</strong> <Sentence text={step.text} />
                {step.done.length > 0 && (
                  <span className="block text-second">
                    {step.done.map(labelOf).join(", ")} {step.done.length === 1 ? "is" : "are"} then cut.
                  </span>
                )}
              </span>
              {onTick && (
                <button
                  type="button"
                  className="button px-2 py-0.5 text-[13px]"
                  aria-label={done ? `Take step ${n + 1} back` : `Step ${n + 1} is cut`}
                  onClick={() => onTick(done ? step.first : step.first + step.times)}
                >
                  {done ? "✓ cut" : "Cut"}
                </button>
              )}
            </li>
          );
        })}
      </ol>
      {onWrong && last && (
        <button type="button" className="button justify-self-start" onClick={() => onWrong(last)}>
          I cut {labelOf(last)} wrong
        </button>
      )}
    </section>
  );
}
