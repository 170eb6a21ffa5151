import type { LogSeenDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { Length, Sentence } from "@/shared/ui/Length";
import { wrongName } from "./model";

type Props = {
  seen: LogSeenDoc;
  unit: Unit;
  mayChange: boolean;
  tuck: number;
  onTuck: (tuck: number) => void;
};

/** What went wrong on the team's pages, counted, and what the numbers suggest. Nothing is set by itself. */
export function WentWrong({ seen, unit, mayChange, tuck, onTuck }: Props) {
  return (
    <section aria-labelledby="went-wrong" className="grid gap-2">
      <h2 id="went-wrong" className="text-[17px]">
        What went wrong this season
      </h2>
      {seen.wrong.length === 0 ? (
        <p className="text-second">Nothing that anybody wrote down.</p>
      ) : (
        <table className="w-full text-[15px]">
          <tbody>
            {seen.wrong.map(({ what, count }) => (
              <tr key={what} className="border-hairline border-t">
                <td className="py-1">{wrongName(what)}</td>
                <td className="py-1">
                  <Tally count={count} />
                </td>
                <td className="w-8 py-1 text-right font-semibold tabular-nums">{count}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {seen.suggestions.map((s) => (
        <div key={s.text} className="grid gap-2 border-ink border-l-4 bg-lit p-2.5 text-[14px]">
          <p>
            <Sentence text={s.text} />
          </p>
          {mayChange && s.tuck !== null && s.tuck !== tuck && (
            <p>
              <button type="button" className="button" onClick={() => onTuck(s.tuck as number)}>
                Tuck <Length value={s.tuck} unit={unit} withUnit /> on this page
              </button>
            </p>
          )}
        </div>
      ))}
    </section>
  );
}

const MOST_STROKES = 20;

function Tally({ count }: { count: number }) {
  const strokes = [...Array(Math.min(count, MOST_STROKES)).keys()];
  return (
    <svg width={strokes.length * 6 + 2} height={14} aria-hidden="true" className="ml-auto block">
      {strokes.map((n) => (
        <path key={n} d={`M${n * 6 + 3} 1V13`} stroke="currentColor" strokeWidth={2} />
      ))}
    </svg>
  );
}
