import type { CutCureDoc, PageCutsDoc } from "@/api/client";
import type { StashById } from "@/features/stash/looks";
import { Sentence } from "@/shared/ui/Length";

type Props = {
  cuts: PageCutsDoc;
  labelOf: (piece: string) => string;
  stash: StashById;
  onCure: ((cure: CutCureDoc) => void) | undefined;
  isImproving: boolean;
};

/** What is short before the first cut, with what could give, and what was cut for a page that has changed since. */
export function Short({ cuts, labelOf, stash, onCure, isImproving }: Props) {
  if (cuts.short.length === 0 && cuts.outdated.length === 0 && !cuts.stopped) return null;
  return (
    <section aria-labelledby={cuts.short.length > 0 ? "short" : undefined} className="grid gap-1">
      {cuts.short.length > 0 && (
        <>
          <h3 id="short">Short, before the first cut</h3>
          <ul className="grid gap-1">
            {cuts.short.map((s) => (
              <li key={s.name}>
                <strong>{labelOf(s.name)}</strong>: {s.why}.
              </li>
            ))}
          </ul>
          {cuts.cures.length > 0 && <Cures cures={cuts.cures} stash={stash} onCure={onCure} />}
          {cuts.cures.length === 0 && !isImproving && (
            <p className="text-[13px] text-second">
              No leaner cut makes room, nor another sheet of it: choose another paper at the Papers station.
            </p>
          )}
        </>
      )}
      {cuts.outdated.length > 0 && (
        <p>
          Cut already, and no longer what the page asks for: {cuts.outdated.map(labelOf).join(", ")}. Trim it down if it
          is larger, or it is cut anew from what is left.
        </p>
      )}
      {cuts.stopped && <p className="text-second">With more time a plan with fewer sheets might be found.</p>}
    </section>
  );
}

function Cures({ cures, stash, onCure }: { cures: readonly CutCureDoc[]; stash: StashById; onCure: Props["onCure"] }) {
  const papers = new Set(cures.map((c) => c.paper));
  return (
    <div className="grid gap-1">
      <h4 className="text-[14px]">What could give</h4>
      <ul className="grid gap-1 text-[14px]">
        {cures.map((cure) => (
          <li key={`${cure.paper} ${cure.text}`} className="flex items-baseline justify-between gap-2">
            <span>
              {papers.size > 1 && <strong>{stash.get(cure.paper)?.item.name}: </strong>}
              <Sentence text={cure.text} />: {outcome(cure.still_short)}.
            </span>
            {cure.patch && onCure && (
              <button type="button" className="button px-2 py-0.5 text-[13px]" onClick={() => onCure(cure)}>
                Do it<span className="sr-only">: {cure.text}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

function outcome(still: number): string {
  if (still === 0) return "then all fit";
  return still === 1 ? "then one piece still lacks" : `then ${still} pieces still lack`;
}
