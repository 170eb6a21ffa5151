import type { BuildStepDoc } from "@/api/client";
import { Sentence } from "@/shared/ui/Length";

type Props = {
  step: BuildStepDoc;
  at: number;
  of: number;
  done: boolean;
  /** None where she may only look. */
  onDone: ((done: boolean) => void) | undefined;
  onMove: ((by: -1 | 1) => void) | undefined;
  /** The number and the words of another step. */
  named: (step: string) => string;
  onShow: (step: string) => void;
};

/** One step: what to do in large type, why it stands here, what to check first and what to mind. */
export function StepInHand({ step, at, of, done, onDone, onMove, named, onShow }: Props) {
  return (
    <section aria-labelledby="step-in-hand" className="grid gap-2.5">
      <h2 id="step-in-hand" className="flex items-start gap-3 text-[22px] leading-7">
        <span className="grid h-9 min-w-9 shrink-0 place-items-center border-2 border-ink bg-tape px-1 text-tape-ink">
          {at + 1}
        </span>
        <span>
          <Sentence text={step.text} />
        </span>
      </h2>
      {step.hint && (
        <p className="font-medium">
          <Sentence text={step.hint} />
        </p>
      )}
      <p className="text-second">
        step {at + 1} of {of}, about {step.minutes} min{step.dries > 0 ? `; dries ${step.dries} min` : ""}
      </p>
      {step.no_return && (
        <p className="border-measure border-l-4 pl-2.5">
          <strong>No way back after this.</strong> {step.no_return}
        </p>
      )}
      {step.caution && <p className="border-measure border-l-4 pl-2.5 text-[13.5px]">{step.caution.text}</p>}
      {onDone && (
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="button button-first min-h-[44px] px-5 text-[16px]"
            onClick={() => onDone(!done)}
          >
            {done ? "Not done after all" : "Done"}
          </button>
          {onMove && !done && (
            <>
              <button type="button" className="button" disabled={at === 0} onClick={() => onMove(-1)}>
                Move it earlier
              </button>
              <button type="button" className="button" disabled={at === of - 1} onClick={() => onMove(1)}>
                Move it later
              </button>
            </>
          )}
        </div>
      )}
      <Reasons title="After" reasons={step.after} named={named} onShow={onShow} />
      <Reasons title="Before" reasons={step.before} named={named} onShow={onShow} />
    </section>
  );
}

function Reasons({
  title,
  reasons,
  named,
  onShow,
}: { title: string; reasons: BuildStepDoc["after"] } & Pick<Props, "named" | "onShow">) {
  if (reasons.length === 0) return null;
  return (
    <div>
      <h3>{title}</h3>
      <ul>
        {reasons.map((r) => (
          <li key={r.step} className="border-hairline border-t py-1 text-[13.5px]">
            <button
              type="button"
              className="text-left underline decoration-hairline underline-offset-2"
              onClick={() => onShow(r.step)}
            >
              <Sentence text={named(r.step)} />
            </button>
            <span className="block text-second">
              {r.why}
              {r.lag > 0 && title === "After" && ` ${r.lag} min of drying lie between.`}
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}
