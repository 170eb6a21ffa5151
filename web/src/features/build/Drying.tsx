import type { BuildStepDoc, PlanDoc } from "@/api/client";
import { Sentence } from "@/shared/ui/Length";
import { type Clocks, clockText, left, readyNow } from "./drying";

type Props = {
  plan: PlanDoc;
  steps: readonly BuildStepDoc[];
  clocks: Clocks;
  now: number;
  onStop: (step: string) => void;
  onShow: (step: string) => void;
};

/** So many steps are offered while something dries. */
const MOST_OFFERED = 3;

/** What dries, how long yet, and what can be done before it is dry. */
export function Drying({ plan, steps, clocks, now, onStop, onShow }: Props) {
  const wet = steps.flatMap((step, n) => {
    const began = clocks[step.id];
    return began === undefined ? [] : [{ step, number: n + 1, left: left(step, began, now) }];
  });
  if (wet.length === 0) return null;
  const ready = readyNow(plan, steps, clocks, now).slice(0, MOST_OFFERED);
  const isWaiting = wet.some((w) => w.left > 0);
  return (
    <section aria-labelledby="drying" className="sheet grid gap-2 border-2 border-ink border-dashed">
      <h2 id="drying" className="text-[17px]">
        {isWaiting ? "Drying" : "Dry now"}
      </h2>
      <ul className="grid gap-1">
        {wet.map(({ step, number, left }) => (
          <li key={step.id} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span className="min-w-[5.5rem] font-bold font-heading text-[22px] tabular-nums" role="timer">
              {left > 0 ? clockText(left) : "dry"}
            </span>
            <span className="min-w-0 flex-1">
              <strong className="mr-2">{number}</strong>
              <Sentence text={step.text} />
            </span>
            <button type="button" className="button pointer-coarse:min-h-[44px]" onClick={() => onStop(step.id)}>
              {left > 0 ? "It is dry already" : "Put the clock away"}
            </button>
          </li>
        ))}
      </ul>
      {isWaiting && ready.length > 0 && (
        <div>
          <h3>Meanwhile</h3>
          <ul>
            {ready.map((step) => (
              <li key={step.id} className="py-0.5">
                <button type="button" className="link text-left" onClick={() => onShow(step.id)}>
                  {steps.indexOf(step) + 1}. <Sentence text={step.text} />
                </button>
              </li>
            ))}
          </ul>
        </div>
      )}
      {isWaiting && ready.length === 0 && (
        <p className="text-second">Nothing else can be done before that is dry. Time for tea.</p>
      )}
    </section>
  );
}
