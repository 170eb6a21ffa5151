import { useCallback, useMemo, useState } from "react";
import type { PaperedPieceDoc, PaperRefDoc, PlanDoc } from "@/api/client";
import { SketchCard } from "@/features/fit/SketchCard";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { useMayChange } from "@/features/people/useMe";
import { fitOf } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { isSeeThrough, looksBehind, sideName } from "@/features/stash/looks";
import { useStashById } from "@/features/stash/useStash";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { useDigits } from "@/shared/ui/useDigits";
import { Workbench } from "@/shared/ui/Workbench";
import { DealOut } from "./DealOut";
import { choiceOf, withPaper } from "./model";
import { PaperedPage } from "./PaperedPage";
import { PapersFirst } from "./PapersFirst";
import { PieceInHand } from "./PieceInHand";
import { StashTray } from "./StashTray";
import { Together } from "./Together";
import { usePapered, useRanked } from "./usePapered";
import { WhatElse } from "./WhatElse";

/** Which sheet and side for each piece: the page in its papers, the stash below it, the piece in hand at the right with what shows, what is
 * cut, and the papers for it, best first. */
export function PapersStation({ page, plan, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const outcome = usePapered(plan, way?.layout);
  const pieces = useMemo(() => outcome.data?.pieces ?? [], [outcome.data]);
  const stash = useStashById();
  const [chosen, setChosen] = useState<string>();
  const inHand = named(pieces, chosen) ?? pieces.find((p) => p.of) ?? pieces[0];
  const ranked = useRanked(page, plan, way?.layout, inHand);
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const numberOf = useCallback((piece: PaperedPieceDoc) => pieceLabel(piece, new Map(names)), [names]);

  const change = useCallback(
    (next: PlanDoc, reason: string) => {
      if (mayChange && next !== plan) changePlan(next, reason);
    },
    [changePlan, mayChange, plan],
  );
  const put = (piece: PaperedPieceDoc, paper: PaperRefDoc | undefined) => {
    const found = paper && stash.get(paper.item);
    const reason = found
      ? `${numberOf(piece)} in ${sideName(found.item, paper?.side)}`
      : `no paper for ${numberOf(piece)}`;
    change(withPaper(plan, piece, paper), reason);
  };
  useDigits((digit) => {
    const found = pieces.find((p) => names.some(([id, number]) => id === p.block && number === digit));
    if (found) setChosen(found.name);
  });
  const isClear = Object.values(plan.papers?.ground ?? {}).some((g) => {
    const ground = stash.get(g.item)?.item;
    return ground !== undefined && isSeeThrough(ground);
  });
  const conflict = answer.data?.conflict;
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[240, 372]}
        moreAcross
        card={{
          name: "Sketch card",
          content: (
            <SketchCard fit={fit} credit={page.credit} selected={inHand?.of ?? undefined} lit={undefined}>
              <Together pieces={pieces} stash={stash} needed={outcome.data?.needed ?? {}} page={page.id} />
              {mayChange && (
                <WhatElse
                  page={page}
                  plan={plan}
                  layout={way?.layout}
                  pieces={pieces}
                  stash={stash}
                  needed={outcome.data?.needed ?? {}}
                  change={change}
                />
              )}
            </SketchCard>
          ),
        }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {outcome.isError && <Failed error={outcome.error} onRetry={() => outcome.refetch()} />}
            {answer.isPending && <Notice>Laying the papers out…</Notice>}
            {conflict && (
              <Notice>
                This page can't be laid out as it stands: <Sentence text={conflict.text} /> The Fit station shows what
                to let go.
              </Notice>
            )}
            {way && (
              <PaperedPage
                fit={fit}
                layout={way.layout}
                blocks={blocks}
                pieces={pieces}
                inHand={inHand}
                labelOf={numberOf}
                onTake={setChosen}
                onDropPaper={mayChange ? put : undefined}
                backs={isClear ? looksBehind(plan.papers, stash, plan.unit) : undefined}
              />
            )}
          </div>
        }
        more={{
          name: "Stash",
          content: (
            <StashTray
              page={page.id}
              unit={plan.unit}
              used={inHand ? choiceOf(plan, inHand).paper : undefined}
              onChoose={inHand && mayChange ? (paper) => put(inHand, paper) : undefined}
            />
          ),
        }}
        ledger={
          inHand ? (
            <div className="sheet grid gap-3">
              <label className="flex items-center gap-2 text-[13px] text-second">
                Piece
                <select
                  className="field min-w-0 flex-1 py-0.5 text-[14px]"
                  value={inHand.name}
                  onChange={(e) => setChosen(e.target.value)}
                >
                  {pieces.map((p) => (
                    <option key={p.name} value={p.name}>
                      {numberOf(p)}
                      {p.paper ? "" : ", no paper yet"}
                    </option>
                  ))}
                </select>
              </label>
              <PieceInHand
                plan={plan}
                piece={inHand}
                label={numberOf(inHand)}
                stash={stash}
                mayChange={mayChange}
                change={change}
              />
              {way && inHand.unit && (
                <DealOut
                  key={inHand.of}
                  units={pieces.filter((p) => p.of === inHand.of && p.part === inHand.part && p.unit)}
                  page={page.id}
                  plan={plan}
                  layout={way.layout}
                  piece={inHand}
                  label={numberOf({ ...inHand, unit: null })}
                  ranked={ranked.data ?? []}
                  stash={stash}
                  mayChange={mayChange}
                  change={change}
                />
              )}
              <PapersFirst
                ranked={ranked}
                stash={stash}
                piece={inHand}
                pieces={pieces}
                plan={plan}
                mayChange={mayChange}
                change={change}
                onChoose={(paper) => put(inHand, paper)}
              />
            </div>
          ) : (
            <Notice>Nothing on this page is cut from paper yet.</Notice>
          )
        }
      />
    </BlockNumbers>
  );
}

/** The piece of that name; where it is put together from several by now, or from one again, the first of it. */
function named(pieces: readonly PaperedPieceDoc[], name: string | undefined): PaperedPieceDoc | undefined {
  const whole = name?.split("#")[0];
  return pieces.find((p) => p.name === name) ?? pieces.find((p) => p.name.split("#")[0] === whole);
}

/** What a piece is called in a sentence: “2, the panel”, “ground, left page”. */
export function pieceLabel(piece: PaperedPieceDoc, names: ReadonlyMap<string, string>): string {
  if (!piece.of) return piece.page === 0 ? "the ground" : "the ground, right page";
  const word = piece.kind === "paper" ? "panel" : (piece.kind ?? "piece");
  const number = names.get(piece.block);
  const unit = piece.unit ? `, unit ${piece.unit.replace("/", ", ")}` : "";
  const slice = piece.slice ? `, part ${piece.slice}` : "";
  return number ? `${number}, the ${word}${unit}${slice}` : `the ${word}${unit}${slice}`;
}
