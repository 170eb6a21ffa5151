import type { PageCureDoc, PageFindingDoc } from "@/api/client";
import { Sentence } from "@/shared/ui/Length";
import { checkName, letterOf, WHY } from "./model";

type Props = {
  findings: readonly PageFindingDoc[];
  fine: readonly string[];
  passed: number;
  shown: string | undefined;
  mayChange: boolean;
  canDo: (cure: PageCureDoc) => boolean;
  canBeInLine: (finding: PageFindingDoc) => boolean;
  onShow: (finding: PageFindingDoc) => void;
  onSee: (finding: PageFindingDoc, cure: PageCureDoc) => void;
  onCure: (cure: PageCureDoc) => void;
  onInLine: (finding: PageFindingDoc) => void;
  onLetBe: (finding: PageFindingDoc) => void;
  onSwitchOff: (what: string) => void;
  onNever: (what: string) => void;
  onShowAgain: () => void;
};

const COUNTS = ["Nothing", "One thing", "Two things", "Three things", "Four things", "Five things", "Six things"];

/** What is worth a look, each with why it matters, what would cure it, and the way to leave it. */
export function Findings(props: Props) {
  const { findings, fine, passed, onShowAgain } = props;
  return (
    <section aria-labelledby="findings" className="grid gap-2.5">
      <h2 id="findings" className="text-[17px]">
        {COUNTS[findings.length] ?? `${findings.length} things`} worth a look
      </h2>
      <ol className="grid gap-2.5">
        {findings.map((finding, n) => (
          <Finding
            key={finding.key}
            {...props}
            finding={finding}
            letter={letterOf(n)}
            isFirst={findings.findIndex((f) => f.what === finding.what) === n}
          />
        ))}
      </ol>
      {fine.length > 0 && (
        <p className="text-[13px]">
          <strong className="text-done">Fine:</strong> {fine.map(checkName).join(", ")}.
        </p>
      )}
      {passed > 0 && (
        <button type="button" className="button justify-self-start" onClick={onShowAgain}>
          Show again what I let be ({passed})
        </button>
      )}
    </section>
  );
}

function Finding({
  finding,
  letter,
  isFirst,
  shown,
  mayChange,
  canDo,
  canBeInLine,
  onShow,
  onSee,
  onCure,
  onInLine,
  onLetBe,
  onSwitchOff,
  onNever,
}: Props & { finding: PageFindingDoc; letter: string; isFirst: boolean }) {
  const lit = shown === finding.key;
  const small = "button px-2 py-0.5 text-[13px]";
  return (
    <li className={`grid gap-1.5 border-hairline border-t pt-2 ${lit ? "bg-measure/10" : ""}`}>
      <button type="button" className="flex gap-2 text-left" aria-pressed={lit} onClick={() => onShow(finding)}>
        <span className="grid h-6 min-w-6 shrink-0 place-items-center rounded-[3px] bg-measure px-1 font-bold text-[13px] text-sheet">
          {letter}
        </span>
        <span>
          <Sentence text={finding.text} />
        </span>
      </button>
      {isFirst && <p className="text-[13px] text-second">{WHY[finding.what]}</p>}
      <ul className="grid gap-1">
        {finding.cures.map((cure) => (
          <li key={cure.text} className="flex items-start justify-between gap-2">
            <span>
              <Sentence text={cure.text} />
            </span>
            <span className="flex shrink-0 gap-1">
              {cure.box && (
                <button
                  type="button"
                  className={small}
                  aria-label={`See it: ${cure.text}`}
                  onClick={() => onSee(finding, cure)}
                >
                  See it
                </button>
              )}
              {mayChange && canDo(cure) && (
                <button
                  type="button"
                  className={small}
                  aria-label={`Try it: ${cure.text}`}
                  onClick={() => onCure(cure)}
                >
                  Try it
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {mayChange && (
        <div className="flex flex-wrap gap-2">
          {canBeInLine(finding) && (
            <button type="button" className={small} onClick={() => onInLine(finding)}>
              Put them in line
            </button>
          )}
          <button type="button" className={small} aria-label={`Let it be: ${letter}`} onClick={() => onLetBe(finding)}>
            Let it be
          </button>
          {isFirst && (
            <button
              type="button"
              className={small}
              aria-label={`Don’t look for ${checkName(finding.what)} on this page`}
              onClick={() => onSwitchOff(finding.what)}
            >
              Don’t look for {checkName(finding.what)}
            </button>
          )}
          {isFirst && (
            <button
              type="button"
              className={small}
              aria-label={`Never look for ${checkName(finding.what)}`}
              onClick={() => onNever(finding.what)}
            >
              Never look for {checkName(finding.what)}
            </button>
          )}
        </div>
      )}
    </li>
  );
}
