import { useCallback, useEffect, useMemo, useState } from "react";
import type { ProposalDoc } from "@/api/client";
import { fitOf, withFit } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { useRoom } from "@/shared/ui/useRoom";
import { Workbench } from "@/shared/ui/Workbench";
import { Alternatives, useAlternatives } from "./Alternatives";
import { BackOfPage } from "./BackOfPage";
import { BlockLedger } from "./BlockLedger";
import { Compare } from "./Compare";
import { ClashNote } from "./Conflicts";
import { withoutThisPin } from "./holding";
import { MeasureSheet } from "./MeasureSheet";
import { withApproach } from "./model";
import { PageDrawing } from "./PageDrawing";
import { SketchCard } from "./SketchCard";
import { TargetPanel } from "./TargetPanel";
import { Turned } from "./Turned";
import { useDragged } from "./useDragged";
import { useKeys } from "./useKeys";
import { chosenWay, useProposals } from "./useProposals";
import { Changes, Ways } from "./Ways";
import { wayName } from "./wayName";

/** Room kept below the page, in pixels: for what changed and why, and for a clash above the page. */
const CHANGES = 150;
const WAYS = 168;
const CLASH = 150;

/** The heart: the sketch card at the left, the page to scale in the middle, the ledger at the right. */
export function FitStation({ page, plan, saved, changePlan, undo, redo, returnTo }: StationProps) {
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const [selected, setSelected] = useState<string>();
  const [lit, setLit] = useState<string>();

  const change = useCallback(
    (next: typeof fit, reason: string) => {
      if (next !== fit) changePlan(withFit(plan, next), reason);
    },
    [changePlan, fit, plan],
  );
  useKeys({ fit, selected, setSelected, undo, redo });

  // While a clash is on screen the last page that could be made stays in sight behind it.
  const proposals = answer.data?.proposals ?? [];
  const found = chosenWay(fit, proposals);
  const [last, setLast] = useState(found);
  useEffect(() => {
    if (found) setLast(found);
  }, [found]);
  // A page that is opened in a clash has no last one: it is shown as it would be without its pins.
  const conflict = answer.data?.conflict;
  const unpinned = useProposals({ ...fit, pins: [] }, Boolean(conflict) && !last);
  const settled = found ?? last ?? unpinned.data?.proposals[0];
  const { dragged, move, drop } = useDragged(fit, found, change);
  const shown = dragged?.proposal ?? settled;
  const blocks = useMemo(() => (shown ? numbered(fit.sketch, shown.layout.blocks) : []), [fit.sketch, shown]);
  const place = shown?.report.blocks.find((b) => b.id === selected);
  const alternatives = useAlternatives(page);
  const [comparing, setComparing] = useState<string>();
  const comparables = [...proposals.map((p) => ({ name: `by ${wayName(p)}`, proposal: p })), ...alternatives.kept];
  const choose = (id: string | undefined) => setSelected((now) => (now === id ? undefined : id));

  const room = useRoom();
  const ways = (proposals.length > 1 || (proposals.length > 0 && !found)) && (
    <Ways
      chosen={found}
      proposals={proposals}
      upright={room !== "narrow" && fit.target.pages === 1}
      onChoose={(way) => change(withApproach(fit, way), `by ${wayName(way)}`)}
      onCompare={() => setComparing(`by ${wayName(found ?? (proposals[0] as ProposalDoc))}`)}
    />
  );
  // A single page leaves room beside it; a spread has its ways below.
  const upright = room !== "narrow" && fit.target.pages === 1 && proposals.length > 1;
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[240, 372]}
        card={{
          name: "Sketch card",
          content: (
            <SketchCard fit={fit} credit={page.credit} selected={selected} lit={lit}>
              <MeasureSheet
                blocks={blocks}
                fit={fit}
                selected={selected}
                lit={lit}
                onSelect={choose}
                onLight={setLit}
              />
            </SketchCard>
          ),
        }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {answer.isPending && <Notice>Fitting the sketch to the page…</Notice>}
            {conflict && (
              <ClashNote
                below={last ? "the last page that could be made" : "the page without its pins"}
                conflict={conflict}
                fit={fit}
                onLetGo={(p) => change(withoutThisPin(fit, p), "a pin let go")}
              />
            )}
            {shown && (
              <>
                <div className={upright ? "grid grid-cols-[minmax(0,1fr)_152px] gap-3" : "grid gap-3"}>
                  <PageDrawing
                    fit={fit}
                    layout={shown.layout}
                    approach={wayName(shown)}
                    places={shown.report.blocks}
                    onDrag={conflict ? undefined : move}
                    onDrop={drop}
                    blocks={blocks}
                    selected={selected}
                    lit={lit}
                    faded={conflict !== undefined && conflict !== null}
                    below={(conflict ? CLASH : 0) + CHANGES + (ways && !upright ? WAYS : 0)}
                    onSelect={choose}
                    onLight={setLit}
                  />
                  {room !== "narrow" && ways}
                </div>
                <Changes report={shown.report} />
              </>
            )}
          </div>
        }
        more={{
          name: "Other ways",
          content: shown && (
            <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3">
              {room === "narrow" && ways}
              <Turned fit={fit} change={change} />
              <Alternatives
                page={page}
                saved={saved}
                found={found}
                alternatives={alternatives}
                returnTo={returnTo}
                onCompare={setComparing}
              />
              {comparing && <Compare all={comparables} first={comparing} onClose={() => setComparing(undefined)} />}
            </div>
          ),
        }}
        ledger={
          <div className="sheet grid grid-cols-[minmax(0,1fr)] gap-3">
            <TargetPanel fit={fit} change={change} />
            <BlockLedger
              fit={fit}
              place={place}
              places={shown?.report.blocks ?? []}
              selected={selected}
              change={change}
            />
            <BackOfPage page={page} fit={fit} ready={saved} />
          </div>
        }
      />
    </BlockNumbers>
  );
}
