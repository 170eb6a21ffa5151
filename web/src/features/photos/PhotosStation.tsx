import { useCallback, useMemo, useState } from "react";
import type { PlacedPhotoDoc, PlanDoc } from "@/api/client";
import { SketchCard } from "@/features/fit/SketchCard";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { useMayChange } from "@/features/people/useMe";
import { fitOf } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import { rulerText, toTicks, type Unit } from "@/shared/lengths/length";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { useDigits } from "@/shared/ui/useDigits";
import { Workbench } from "@/shared/ui/Workbench";
import { LeftOver } from "./LeftOver";
import { printsOn, unitOfPlan, withSwap } from "./model";
import { PhotoPage } from "./PhotoPage";
import { PrintInHand } from "./PrintInHand";
import { PrintSheets } from "./PrintSheets";
import { PrintTray } from "./PrintTray";
import { usePlacedPhotos } from "./usePlacedPhotos";

/** Which prints, how large, which way up, and what must not be cut off: the page with its photos, the prints below it, the one in hand
 * at the right. */
export function PhotosStation({ page, plan, saved, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const outcome = usePlacedPhotos(plan, way?.layout);
  const prints = printsOn(plan);
  const placed = useMemo(() => outcome.data?.placed ?? [], [outcome.data]);
  const [chosen, setChosen] = useState<string>();
  const inHand = prints.find((p) => p.id === chosen) ?? prints[0];
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const [scale, setScale] = useState(24);
  const [printing, setPrinting] = useState(false);

  const change = useCallback(
    (next: PlanDoc, reason: string) => {
      if (mayChange && next !== plan) changePlan(next, reason);
    },
    [changePlan, mayChange, plan],
  );
  const swap = (a: string, b: string) => {
    const next = withSwap(plan, a, b, placed);
    if (next) change(next, `prints ${a} and ${b} changed places`);
  };
  useDigits((id) => prints.some((p) => p.id === id) && setChosen(id));

  const here = placed.find((p) => p.print === inHand?.id);
  const cut = placed.filter((p) => p.cut.length > 0);
  const conflict = answer.data?.conflict;
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[240, 372]}
        moreAcross
        card={{
          name: "Sketch card",
          content: (
            <SketchCard fit={fit} credit={page.credit} selected={here?.of} lit={undefined}>
              {outcome.data && <Why reasons={outcome.data.reasons} />}
            </SketchCard>
          ),
        }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {outcome.isError && <Failed error={outcome.error} onRetry={() => outcome.refetch()} />}
            {answer.isPending && <Notice>Laying the photos out…</Notice>}
            {conflict && (
              <Notice>
                These photos can't lie on this page as it stands: <Sentence text={conflict.text} /> The Fit station
                shows what to let go.
              </Notice>
            )}
            {way && (
              <PhotoPage
                fit={fit}
                layout={way.layout}
                blocks={blocks}
                placed={placed}
                inHand={inHand?.id}
                onTake={setChosen}
                onSwap={mayChange ? swap : undefined}
                onScale={setScale}
              />
            )}
            {cut.length > 0 && (
              <ul className="grid gap-0.5 text-[13px]">
                {cut.map((p) => (
                  <CutNote key={p.print} placed={p} unit={unitOfPlan(plan)} />
                ))}
              </ul>
            )}
          </div>
        }
        more={{
          name: "Prints",
          content: (
            <PrintTray
              pageId={page.id}
              plan={plan}
              places={way?.layout.blocks.filter((b) => b.kind === "photo").length ?? 0}
              placed={placed}
              perInch={scale}
              inHand={inHand?.id}
              onTake={setChosen}
              onSwap={mayChange ? swap : undefined}
              change={change}
              mayChange={mayChange}
              onPrint={() => setPrinting(true)}
            >
              <LeftOver plan={plan} placed={placed} change={change} />
            </PrintTray>
          ),
        }}
        ledger={
          <>
            <PrintInHand
              key={inHand?.id}
              plan={plan}
              print={inHand}
              placed={here}
              outcome={outcome.data}
              change={change}
              mayChange={mayChange}
            />
            {printing && (
              <PrintSheets page={page.id} revision={page.revision} saved={saved} onClose={() => setPrinting(false)} />
            )}
          </>
        }
      />
    </BlockNumbers>
  );
}

function Why({ reasons }: { reasons: readonly string[] }) {
  if (reasons.length === 0) return null;
  return (
    <section aria-labelledby="why">
      <h3 id="why">Why they lie so</h3>
      <ul className="mt-1 grid gap-1">
        {reasons.map((r) => (
          <li key={r}>
            <Sentence text={r} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What a print loses that she wanted kept, and what would hold it. */
function CutNote({ placed, unit }: { placed: PlacedPhotoDoc; unit: Unit }) {
  const needs = placed.cut[0];
  if (!needs) return null;
  const length = (side: number) => rulerText(toTicks(side, unit), unit);
  const size = (s: { w: number; h: number }) =>
    `${length(roundedUp(s.w, unit))} × ${length(roundedUp(s.h, unit))} ${unit}`;
  const smaller = needs.print && { w: roundedDown(needs.print.w, unit), h: roundedDown(needs.print.h, unit) };
  const print = smaller ? `, or a print of ${length(smaller.w)} × ${length(smaller.h)} ${unit} in this one` : "";
  return (
    <li className="text-measure">
      <Sentence
        text={`Print ${placed.print} in ${placed.block} loses something that you want to keep. A place of ${size(needs.slot)} would hold it${print}.`}
      />
    </li>
  );
}

/** What is needed is said on a mark of the ruler, and never too small. */
function roundedUp(length: number, unit: Unit): number {
  const step = unit === "in" ? 1 / 8 : 1;
  return Math.ceil(length / step - 1e-6) * step;
}

function roundedDown(length: number, unit: Unit): number {
  const step = unit === "in" ? 1 / 8 : 1;
  return Math.floor(length / step + 1e-6) * step;
}
