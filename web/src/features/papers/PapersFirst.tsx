import type { UseQueryResult } from "@tanstack/react-query";
import { useState } from "react";
import type { PaperedPieceDoc, PaperRefDoc, PlanDoc, RankedPaperDoc } from "@/api/client";
import { type StashById, sideName } from "@/features/stash/looks";
import { PaperSwatch } from "@/features/stash/PaperSwatch";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { isSamePaper, withPaperForAll } from "./model";
import { WhatCounts } from "./WhatCounts";

type Props = {
  ranked: UseQueryResult<RankedPaperDoc[]>;
  stash: StashById;
  piece: PaperedPieceDoc;
  pieces: readonly PaperedPieceDoc[];
  plan: PlanDoc;
  mayChange: boolean;
  change: (next: PlanDoc, reason: string) => void;
  onChoose: (paper: PaperRefDoc | undefined) => void;
};

/** So many are shown before she asks for more. */
const FIRST = 5;

/** The stash's papers for the piece in hand, best first, each with its reasons; those that can't serve last, with why. */
export function PapersFirst({ ranked, stash, piece, pieces, plan, mayChange, change, onChoose }: Props) {
  const [most, setMost] = useState(FIRST);
  const [beside, setBeside] = useState<RankedPaperDoc>();
  const known = (ranked.data ?? []).filter((r) => stash.has(r.item));
  const serving = known.filter((r) => r.serves);
  const used = known.find((r) => isSamePaper(r, piece.paper));
  const shown = serving.slice(0, most);
  if (used?.serves && !shown.includes(used)) shown.push(used);
  const cannot = known.filter((r) => !r.serves);
  const alike = pieces.filter((p) => (piece.of ? p.of === piece.of : !p.of) && p.name !== piece.name);
  return (
    <section aria-labelledby="papers-first" className="grid gap-1.5">
      <div className="flex flex-wrap items-center justify-between gap-2 border-hairline border-t pt-2">
        <h2 id="papers-first">Papers, best first</h2>
        {piece.paper && mayChange && alike.length > 0 && (
          <button
            type="button"
            className="button"
            onClick={() =>
              piece.paper && change(withPaperForAll(plan, pieces, piece, piece.paper), "one paper for all alike")
            }
          >
            {piece.of ? "For all its parts" : "For both pages"}
          </button>
        )}
      </div>
      {ranked.isError && <Failed error={ranked.error} onRetry={() => ranked.refetch()} />}
      {ranked.isPending && <p className="text-second">Looking through the stash…</p>}
      {beside && used && <SideBySide stash={stash} a={used} b={beside} onClose={() => setBeside(undefined)} />}
      <WhatCounts plan={plan} mayChange={mayChange} change={change} />
      <ol className="grid">
        {shown.map((paper) => (
          <Row
            key={`${paper.item}:${paper.side}`}
            rank={String(serving.indexOf(paper) + 1)}
            paper={paper}
            stash={stash}
            onPage={paper === used}
            onChoose={mayChange ? () => onChoose(paper === used ? undefined : paper) : undefined}
            onHold={used && paper !== used ? () => setBeside(paper) : undefined}
          />
        ))}
        {cannot.slice(0, most > FIRST ? cannot.length : 1).map((paper) => (
          <Row key={`${paper.item}:${paper.side}`} rank="–" paper={paper} stash={stash} onPage={paper === used} />
        ))}
      </ol>
      {known.length > shown.length + 1 && most === FIRST && (
        <button type="button" className="link justify-self-start text-[13px]" onClick={() => setMost(60)}>
          Show more of the stash
        </button>
      )}
    </section>
  );
}

type RowProps = {
  rank: string;
  paper: RankedPaperDoc;
  stash: StashById;
  onPage: boolean;
  onChoose?: (() => void) | undefined;
  onHold?: (() => void) | undefined;
};

function Row({ rank, paper, stash, onPage, onChoose, onHold }: RowProps) {
  const item = stash.get(paper.item)?.item;
  if (!item) return null;
  const name = sideName(item, paper.side);
  return (
    <li className={`border-hairline border-b px-1 py-1.5 last:border-b-0 ${onPage ? "bg-lit" : ""}`}>
      <div className="grid grid-cols-[1rem_48px_minmax(0,1fr)] items-start gap-2.5">
        <span className="pt-0.5 text-center font-bold font-heading">{rank}</span>
        <PaperSwatch item={item} side={paper.side} width={48} height={48} perInch={22} />
        <div className={paper.serves ? "" : "text-second"}>
          <div className="flex items-baseline justify-between gap-2">
            {onChoose ? (
              <button
                type="button"
                aria-pressed={onPage}
                className="text-left font-semibold hover:underline"
                onClick={onChoose}
              >
                {name}
              </button>
            ) : (
              <span className="font-semibold">{name}</span>
            )}
            <span className="whitespace-nowrap text-[13px] text-second">
              {onPage ? "on the page" : paper.serves ? `${paper.free} free` : ""}
            </span>
          </div>
          <p className="text-[13px] leading-snug">
            {paper.reasons.length > 0
              ? paper.reasons.map((r) => (
                  <span key={r}>
                    <Sentence text={r} />{" "}
                  </span>
                ))
              : "Nothing speaks against it."}
          </p>
          {onHold && (
            <button type="button" className="link text-[12.5px]" onClick={onHold}>
              hold it beside
            </button>
          )}
        </div>
      </div>
    </li>
  );
}

/** Two papers held side by side, large. */
function SideBySide({
  stash,
  a,
  b,
  onClose,
}: {
  stash: StashById;
  a: RankedPaperDoc;
  b: RankedPaperDoc;
  onClose: () => void;
}) {
  const sides = [a, b].flatMap((paper) => {
    const item = stash.get(paper.item)?.item;
    return item ? [{ paper, item }] : [];
  });
  return (
    <div className="grid grid-cols-2 gap-2">
      {sides.map(({ paper, item }) => (
        <figure key={`${paper.item}:${paper.side}`}>
          <PaperSwatch item={item} side={paper.side} width={158} height={120} perInch={40} />
          <figcaption className="text-[13px]">{sideName(item, paper.side)}</figcaption>
        </figure>
      ))}
      <button type="button" className="link justify-self-start text-[13px]" onClick={onClose}>
        Put them down
      </button>
    </div>
  );
}
