import type { LayoutDoc, PageView, PaperedPieceDoc, PlanDoc } from "@/api/client";
import { type StashById, sideName } from "@/features/stash/looks";
import { PaperSwatch } from "@/features/stash/PaperSwatch";
import { Sentence } from "@/shared/ui/Length";
import { lackingOf, withInstead } from "./model";
import { useRanked } from "./usePapered";

type Props = {
  page: PageView;
  plan: PlanDoc;
  layout: LayoutDoc | undefined;
  pieces: readonly PaperedPieceDoc[];
  stash: StashById;
  needed: Record<string, number>;
  change: (next: PlanDoc, reason: string) => void;
};

/** So many other papers are offered. */
const OFFERED = 2;

/** Where another page has the last sheet: what else would do for the pieces that want it, one click away. */
export function WhatElse({ page, plan, layout, pieces, stash, needed, change }: Props) {
  const lacking = lackingOf(needed, stash, page.id)[0];
  const largest = pieces
    .filter((p) => p.paper?.item === lacking?.id)
    .sort((a, b) => b.cut.w * b.cut.h - a.cut.w * a.cut.h)[0];
  const ranked = useRanked(page, plan, layout, largest);
  const thing = lacking && stash.get(lacking.id);
  if (!lacking || !thing || !largest) return null;
  const others = (ranked.data ?? []).filter(
    (r) => r.serves && r.free > 0 && r.item !== lacking.id && stash.has(r.item),
  );
  if (others.length === 0) return null;
  return (
    <section aria-labelledby="what-else" className="grid gap-1 text-[13px]">
      <h3 id="what-else">What else would do</h3>
      <ul className="grid gap-1.5">
        {others.slice(0, OFFERED).map((other) => {
          const found = stash.get(other.item);
          if (!found) return null;
          const name = sideName(found.item, other.side);
          return (
            <li key={`${other.item}:${other.side}`} className="grid grid-cols-[32px_minmax(0,1fr)] gap-2">
              <PaperSwatch item={found.item} side={other.side} width={32} height={32} perInch={18} />
              <div>
                <button
                  type="button"
                  className="link text-left"
                  onClick={() =>
                    change(
                      withInstead(plan, pieces, lacking.id, { item: other.item, side: other.side }),
                      `${name} in place of ${thing.item.name}`,
                    )
                  }
                >
                  Take {name} in its place
                </button>
                {other.reasons[0] && (
                  <span className="block text-second">
                    <Sentence text={other.reasons[0]} />
                  </span>
                )}
              </div>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
