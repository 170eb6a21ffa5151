import type { ProposalDoc } from "@/api/client";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { Sentence } from "@/shared/ui/Length";
import { saysOf, wayName } from "./wayName";

type Props = {
  chosen: ProposalDoc | undefined;
  proposals: readonly ProposalDoc[];
  onChoose: (way: ProposalDoc) => void;
  onCompare: () => void;
};

/** All ways this sketch can go to its target, best first. With one way there is nothing to choose. */
export function Ways({ chosen, proposals, onChoose, onCompare }: Props) {
  if (proposals.length < 2 && chosen) return null;
  return (
    <section aria-labelledby="ways">
      <div className="mb-1 flex items-center gap-3">
        <h2 id="ways">{proposals.length === 1 ? "One way" : `${proposals.length} ways`} this sketch can go</h2>
        {proposals.length > 1 && (
          <button type="button" className="button" onClick={onCompare}>
            Compare
          </button>
        )}
      </div>
      <ul className="flex flex-wrap gap-2.5">
        {proposals.map((p, n) => (
          <li key={wayName(p)}>
            <button
              type="button"
              aria-pressed={p === chosen}
              onClick={() => onChoose(p)}
              className="w-[144px] cursor-pointer rounded-[3px] border-2 border-transparent p-1 text-left aria-pressed:border-ink"
            >
              <Thumbnail
                canvas={p.layout.canvas}
                blocks={p.layout.blocks}
                width={120}
                height={76}
                label={`By ${wayName(p)}`}
              />
              <span className="block text-[13px] font-semibold">
                {n + 1} {wayName(p)}
              </span>
              <span className="block text-[12px] text-second">{saysOf(p)}</span>
              <span className="block text-[12px] text-second">
                lines {p.report.alignments.kept} of {p.report.alignments.of}
              </span>
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

/** What changed and why, in sentences, and the figures behind them. */
export function Changes({ report }: { report: ProposalDoc["report"] }) {
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  return (
    <section aria-labelledby="changes" className="sheet">
      <h2 id="changes">What changed, and why</h2>
      {report.notes.length === 0 && <p className="mt-1">Nothing: every block is where the sketch has it.</p>}
      <ul className="mt-1 list-disc pl-5">
        {report.notes.map((note) => (
          <li key={note}>
            <Sentence text={note} />
          </li>
        ))}
      </ul>
      <p className="mt-2 text-[13px] text-second">
        Off its place {percent(report.drift.mean)} on average, {percent(report.drift.max)} at most. Lines kept{" "}
        {report.alignments.kept} of {report.alignments.of}, neighbours {report.relations.kept} of {report.relations.of}
        {report.trimmed > 0 ? `, trimmed ${percent(report.trimmed)}` : ""}.
      </p>
    </section>
  );
}
