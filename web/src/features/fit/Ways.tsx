import type { ProposalDoc } from "@/api/client";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { Sentence } from "@/shared/ui/Length";
import { photoArea, saysOf, wayName } from "./wayName";

type Props = {
  chosen: ProposalDoc | undefined;
  proposals: readonly ProposalDoc[];
  onChoose: (way: ProposalDoc) => void;
  onCompare: () => void;
  /** One below the other, beside a page that leaves room there. */
  upright?: boolean;
};

/** All ways this sketch can go to its target, best first. With one way there is nothing to choose. */
export function Ways({ chosen, proposals, onChoose, onCompare, upright = false }: Props) {
  if (proposals.length < 2 && chosen) return null;
  return (
    <section aria-labelledby="ways">
      <div className={`mb-1 flex justify-between gap-x-3 gap-y-1 ${upright ? "flex-col items-start" : "items-center"}`}>
        <h2 id="ways">{proposals.length === 1 ? "One way" : `${proposals.length} ways`} this sketch can go</h2>
        {proposals.length > 1 && (
          <button type="button" className="button" onClick={onCompare}>
            Compare side by side
          </button>
        )}
      </div>
      <ul className={upright ? "grid gap-1.5" : "grid grid-cols-[repeat(auto-fill,minmax(136px,1fr))] gap-2"}>
        {proposals.map((p, n) => (
          <li key={wayName(p)}>
            <button
              type="button"
              aria-pressed={p === chosen}
              onClick={() => onChoose(p)}
              className="w-full cursor-pointer rounded-[3px] border-2 border-transparent p-1 text-left align-top leading-tight aria-pressed:border-ink"
            >
              <Thumbnail
                canvas={p.layout.canvas}
                blocks={p.layout.blocks}
                width={120}
                height={64}
                label={`By ${wayName(p)}`}
              />
              <span className="mt-0.5 block text-[13px] font-semibold">
                {n + 1} <span className="capitalize">{wayName(p)}</span>
              </span>
              <span className="block text-[12.5px] text-second">{photoArea(p)}</span>
              <span className="block text-[12.5px] text-second">{saysOf(p)}</span>
            </button>
          </li>
        ))}
      </ul>
      {!chosen && (
        <p role="alert" className="font-bold">
          The chosen way can't hold any more. Choose another.
        </p>
      )}
    </section>
  );
}

/** So many sentences are in sight at once; the rest open below them. */
const IN_SIGHT = 4;

/** What changed and why, in sentences, and the figures behind them. */
export function Changes({ report }: { report: ProposalDoc["report"] }) {
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  const [first, rest] = [report.notes.slice(0, IN_SIGHT), report.notes.slice(IN_SIGHT)];
  const { kept, of } = report.alignments;
  return (
    <section aria-labelledby="changes" className="sheet !py-2.5">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h2 id="changes">What changed, and why</h2>
        <p className="text-[13px] text-second">
          {kept === of ? "all lines of the sketch are held" : `${kept} of ${of} lines are held`}
        </p>
      </div>
      {report.notes.length === 0 && <p className="mt-1">Nothing: every block is where the sketch has it.</p>}
      <Sentences all={first} />
      <details>
        <summary className="cursor-pointer text-[13px] text-second">
          {rest.length > 0 ? `${rest.length} more, and the figures` : "The figures"}
        </summary>
        <Sentences all={rest} />
        <p className="mt-1 text-[13px] text-second">
          Off its place {percent(report.drift.mean)} on average, {percent(report.drift.max)} at most. Lines kept {kept}{" "}
          of {of}, neighbours {report.relations.kept} of {report.relations.of}
          {report.trimmed > 0 ? `, trimmed ${percent(report.trimmed)}` : ""}.
        </p>
      </details>
    </section>
  );
}

function Sentences({ all }: { all: readonly string[] }) {
  return (
    <ul className="mt-0.5">
      {all.map((note) => (
        <li key={note} className="border-hairline border-t py-[3px] first:border-t-0">
          <Sentence text={note} />
        </li>
      ))}
    </ul>
  );
}
