import { useMutation } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, type PageCureDoc, type PageFindingDoc, type PlanDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { SketchCard } from "@/features/fit/SketchCard";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { useChecksOff } from "@/features/people/useChecksOff";
import { useMayChange } from "@/features/people/useMe";
import { fitOf, withFit } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { useStash, useStashById } from "@/features/stash/useStash";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { Workbench } from "@/shared/ui/Workbench";
import { BeforeAfter } from "./BeforeAfter";
import { CheckedPage } from "./CheckedPage";
import { Clusters } from "./Clusters";
import { Findings } from "./Findings";
import { firstChoice } from "./firstChoice";
import {
  inLine,
  isPassed,
  letterOf,
  piecesOf,
  shuffled,
  takenByItem,
  withCheck,
  withChoice,
  withCure,
  withoutPiece,
  withPassed,
  withPiece,
  withPieceChanged,
  withPieceMoved,
  withSection,
} from "./model";
import { Ready } from "./Ready";
import { Stack } from "./Stack";
import { Strewn } from "./Strewn";
import { SwitchedOff } from "./SwitchedOff";
import { useLaid } from "./useLaid";

type Tried = { finding: PageFindingDoc; cure: PageCureDoc };
type Picked = { block: string; piece: number | undefined };

/** Where the embellishments go, what they are made of, and what an experienced eye would see before the glue. */
export function ClustersStation({ page, plan, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const layout = way?.layout;
  const outcome = useLaid(page.id, plan, layout);
  const checks = useChecksOff();
  const laid = outcome.data;
  const stash = useStashById();
  const [picked, setPicked] = useState<Picked>();
  const [shown, setShown] = useState<string>();
  const [tried, setTried] = useState<Tried>();
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const numberOf = (id: string) => blocks.find((b) => b.block.id === id)?.number ?? id;
  const clusters = laid?.clusters ?? [];
  const cluster = clusters.find((c) => c.block === picked?.block) ?? clusters[0];
  const findings = useMemo(() => (laid?.findings ?? []).filter((f) => !isPassed(plan, f.key)), [laid, plan]);
  const change = (next: PlanDoc | undefined, reason: string) => {
    if (mayChange && next) changePlan(next, reason);
  };
  const cured = (cure: PageCureDoc) => {
    if (cure.patch) return withSection(plan, cure.patch as object);
    const next = layout && withCure(fit, layout, cure);
    return next && withFit(plan, next);
  };
  const lined = (finding: PageFindingDoc) => {
    const next = layout && inLine(fit, layout, finding);
    return next && withFit(plan, next);
  };
  const keep = (cure: PageCureDoc) => {
    setTried(undefined);
    change(cured(cure), cure.text.replace(/\.$/, ""));
  };
  const share = useShare(page.id, plan, change);
  const triedNow = tried && findings.find((f) => f.key === tried.finding.key);
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[240, 372]}
        card={{
          name: "Clusters",
          content: (
            <div className="grid gap-3">
              <SketchCard fit={fit} credit={page.credit} selected={undefined} lit={undefined}>
                <Clusters
                  clusters={clusters}
                  numberOf={numberOf}
                  picked={cluster?.block}
                  mayChange={mayChange}
                  sharing={share.isPending}
                  failed={share.error}
                  onPick={(block) => setPicked({ block, piece: undefined })}
                  onSize={(c, size) => change(withChoice(plan, c, { size }), `cluster ${numberOf(c.block)} ${size}`)}
                  onShare={() => layout && share.mutate(layout)}
                  onShuffle={() => change(shuffled(plan, clusters), "clusters laid another way")}
                />
              </SketchCard>
              <div className="sheet">
                <Ready
                  page={page.id}
                  unit={plan.unit}
                  taken={takenByItem(plan)}
                  into={cluster && numberOf(cluster.block)}
                  onTake={
                    mayChange && cluster
                      ? (thing) =>
                          change(
                            withPiece(plan, cluster, thing.id),
                            `${thing.item.name} into ${numberOf(cluster.block)}`,
                          )
                      : undefined
                  }
                />
                {mayChange && (
                  <div className="mt-3">
                    <Strewn
                      page={page.id}
                      plan={plan}
                      lying={laid?.strewn.length ?? 0}
                      onStrew={(scatter, reason) => change(withSection(plan, { scatter }), reason)}
                    />
                  </div>
                )}
              </div>
            </div>
          ),
        }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {outcome.isError && <Failed error={outcome.error} onRetry={() => outcome.refetch()} />}
            {(answer.isPending || (layout && outcome.isPending)) && <Notice>Looking at the page…</Notice>}
            {answer.data?.conflict && (
              <Notice>
                This page can't be laid out as it stands: <Sentence text={answer.data.conflict.text} /> The Fit station
                shows what to let go.
              </Notice>
            )}
            {laid?.short.map((s) => (
              <Notice key={s.item}>
                {s.name}: {s.lacking} more than the stash has free for this page. Take{" "}
                {s.lacking === 1 ? "one" : "some"} out, or put more away at the stash.
              </Notice>
            ))}
            {(laid?.gone.length ?? 0) > 0 && (
              <Notice>
                Something that lay in a cluster is no longer in the stash, and is left out. The cluster keeps its place
                for it.
              </Notice>
            )}
            {layout && (
              <CheckedPage
                fit={fit}
                layout={layout}
                blocks={blocks}
                laid={laid}
                stash={stash}
                strewn={plan.clusters?.scatter?.item}
                findings={findings}
                shown={shown}
                ghost={triedNow ? (tried?.cure.box ?? undefined) : undefined}
                lit={cluster && picked?.piece !== undefined ? { block: cluster.block, piece: picked.piece } : undefined}
                onShow={(f) => setShown(f.key)}
                onPick={(block, piece) => setPicked({ block, piece })}
                onMoved={
                  mayChange
                    ? (c, n, at) => {
                        const turn = c.pieces.find((p) => p.piece === n)?.turn ?? 0;
                        change(withPieceChanged(plan, c, n, { at: onGrid(at), turn }), "piece moved");
                      }
                    : undefined
                }
              />
            )}
            {layout && tried && triedNow && (
              <BeforeAfter
                finding={triedNow}
                letter={letterOf(findings.indexOf(triedNow))}
                cure={tried.cure}
                layout={layout}
                onKeep={mayChange && cured(tried.cure) ? () => keep(tried.cure) : undefined}
                onLeave={() => setTried(undefined)}
              />
            )}
            {cluster && (
              <div className="sheet">
                <Stack
                  cluster={cluster}
                  number={numberOf(cluster.block)}
                  chosen={piecesOf(plan, cluster)}
                  stash={stash}
                  unit={unitOf(fit)}
                  mayChange={mayChange}
                  lit={picked?.block === cluster.block ? picked.piece : undefined}
                  onPick={(piece) => setPicked({ block: cluster.block, piece })}
                  onChange={(n, what, reason) => change(withPieceChanged(plan, cluster, n, what), reason)}
                  onMove={(n, by) => {
                    change(withPieceMoved(plan, cluster, n, by), by > 0 ? "piece higher" : "piece lower");
                    setPicked({ block: cluster.block, piece: n + by });
                  }}
                  onTakeOut={(n) => {
                    change(withoutPiece(plan, cluster, n), "piece taken out");
                    setPicked({ block: cluster.block, piece: undefined });
                  }}
                />
              </div>
            )}
          </div>
        }
        ledger={
          <div className="sheet grid gap-4">
            <Findings
              findings={findings}
              fine={laid?.fine ?? []}
              passed={(laid?.findings.length ?? 0) - findings.length}
              shown={shown}
              mayChange={mayChange}
              canDo={(cure) => cured(cure) !== undefined}
              canBeInLine={(f) => lined(f) !== undefined}
              onShow={(f) => setShown(f.key)}
              onSee={(finding, cure) => {
                setShown(finding.key);
                setTried({ finding, cure });
              }}
              onCure={keep}
              onInLine={(f) => change(lined(f), `two ${f.edge} edges put in line`)}
              onLetBe={(f) => change(withPassed(plan, f.key), "let be")}
              onSwitchOff={(what) => change(withCheck(plan, what, false), "check switched off")}
              onNever={checks.switchOff}
              onShowAgain={() => change(withSection(plan, { passed: [] }), "shown again what was let be")}
            />
            <SwitchedOff
              plan={plan}
              never={checks.never}
              onOnAgain={checks.switchOn}
              mayChange={mayChange}
              onOn={(what) => change(withCheck(plan, what, true), "check switched on")}
            />
          </div>
        }
      />
    </BlockNumbers>
  );
}

/** A hand doesn't lay things to the hair: a 64th. */
const onGrid = ({ x, y }: { x: number; y: number }) => ({ x: Math.round(x * 64) / 64, y: Math.round(y * 64) / 64 });

/** Shares out what lies in the clusters; a first choice out of the stash where nothing lies there. */
function useShare(page: string, plan: PlanDoc, change: (next: PlanDoc, reason: string) => void) {
  const things = useStash("", plan.unit).items ?? [];
  return useMutation({
    mutationFn: async (layout: Parameters<typeof api.clustersShared>[0]["layout"]) => {
      const lying = [...takenByItem(plan)].map(([item, count]) => ({ item, count }));
      const asked = lying.length > 0 ? lying : firstChoice(things, page);
      return api.clustersShared({ plan, layout, things: asked });
    },
    onSuccess: ({ clusters }) => {
      const shared = Object.entries(clusters).flatMap(([of, parts]) =>
        Object.entries(parts).map(([part, choice]) => ({ of, part: Number(part), pieces: choice.pieces ?? [] })),
      );
      const next = shared.reduce((p, s) => withChoice(p, s, { pieces: s.pieces }), plan);
      change(next, "pieces shared out");
    },
  });
}
