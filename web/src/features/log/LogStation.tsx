import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useMemo } from "react";
import { api, newKey, type PlanDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { useMayChange } from "@/features/people/useMe";
import { patched } from "@/features/plan/patch";
import { fitOf } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { Workbench } from "@/shared/ui/Workbench";
import { AsItWent } from "./AsItWent";
import { FinishedPage } from "./FinishedPage";
import { GiveAway } from "./GiveAway";
import { InTheGallery } from "./InTheGallery";
import { leftOut, PRIVATE, withEntry, withLeftOut, withLog, withoutEntry } from "./model";
import { Publish } from "./Publish";
import { useLogSeen } from "./useLogSeen";
import { WentWrong } from "./WentWrong";

/** As far as pieces reach under their neighbours where nothing else is said. */
const USUAL_TUCK = { in: 0.5, mm: 12.7 };

/** What was done, what it taught, and the pack to publish. */
export function LogStation({ page, plan, saved, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const unit = unitOf(fit);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const log = useLogSeen(page.id, page.revision);
  const seen = log.data;
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const listed = fit.sketch.blocks.map((b, n): [string, string] => [b.id, String(n + 1)]);
  const change = (next: PlanDoc, reason: string) => {
    if (mayChange) changePlan(next, reason);
  };
  const closeups = plan.log?.closeups ?? [];
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[262, 372]}
        card={{
          name: "As it went",
          content: (
            <AsItWent
              plan={plan}
              seen={seen}
              unit={unit}
              mayChange={mayChange}
              blocks={listed}
              onWrite={(entry) => change(withEntry(plan, entry), "written into the log")}
              onTakeOut={(id) => change(withoutEntry(plan, id), "taken out of the log")}
              onRemember={(text) => change(withLog(plan, { remember: text || null }), "something to remember")}
            />
          ),
        }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {answer.isPending && <Notice>Fetching the page…</Notice>}
            {answer.data?.conflict && (
              <Notice>
                This page can't be laid out as it stands: <Sentence text={answer.data.conflict.text} /> The Fit station
                shows what to let go.
              </Notice>
            )}
            {way && (
              <FinishedPage
                plan={plan}
                fit={fit}
                layout={way.layout}
                blocks={blocks}
                name={page.name}
                page={page.id}
                revision={page.revision}
                saved={saved}
                mayChange={mayChange}
                onWrite={(text) =>
                  change(
                    withEntry(plan, { id: newKey(), at: new Date().toISOString(), kind: "note", text }),
                    "as made, written into the log",
                  )
                }
                onPicture={(picture) => change(withLog(plan, { picture }), "picture of the finished page")}
                onCloseup={(id) => change(withLog(plan, { closeups: [...closeups, id] }), "close-up added")}
                onTakeOut={(id) =>
                  change(withLog(plan, { closeups: closeups.filter((c) => c !== id) }), "close-up taken out")
                }
              />
            )}
            {mayChange && way && (
              <GiveAway page={page.id} name={page.name} pages={way.layout.canvas.pages} saved={saved} />
            )}
            <Changed page={page.id} revision={page.revision} />
            <p className="text-[14px] text-second">
              Rests of sheets go back to the stash at the{" "}
              <Link to="/pages/$pageId/$station" params={{ pageId: page.id, station: "cut" }} className="underline">
                Cut station
              </Link>
              , once their last cut is ticked.
            </p>
          </div>
        }
        ledger={
          <div className="sheet grid gap-5">
            {log.isError && <Failed error={log.error} onRetry={() => log.refetch()} />}
            {log.isPending && <Notice>Reading the log…</Notice>}
            {seen && (
              <>
                <WentWrong
                  seen={seen}
                  unit={unit}
                  mayChange={mayChange}
                  tuck={plan.papers?.tuck ?? USUAL_TUCK[unit]}
                  onTuck={(tuck) => change(patched(plan, { papers: { tuck } }), "another tuck")}
                />
                <Publish
                  page={page.id}
                  plan={plan}
                  seen={seen}
                  saved={saved}
                  mayChange={mayChange}
                  onStory={(story) => change(withLog(plan, { story: story || null }), "the story")}
                  onLink={(link) => change(withLog(plan, { link: link || null }), "a link")}
                  onLeaveOut={(what, out) => change(withLeftOut(plan, what, out), "what stays out of the pack")}
                />
                <InTheGallery
                  page={page.id}
                  call={page.call?.name}
                  hasPicture={Boolean(plan.log?.picture)}
                  missing={seen.pack.missing}
                  out={PRIVATE.filter(([what]) => leftOut(plan).includes(what)).map(([, said]) => said)}
                  saved={saved}
                  mayChange={mayChange}
                />
              </>
            )}
          </div>
        }
      />
    </BlockNumbers>
  );
}

/** As many changes are told. */
const MOST_CHANGES = 8;

/** The last changes of the plan, with her word for each. */
function Changed({ page, revision }: { page: string; revision: number }) {
  const history = useQuery({ queryKey: ["history", page, revision], queryFn: () => api.history(page) });
  const changes = (history.data ?? []).filter((r) => r.station !== "log").slice(0, MOST_CHANGES);
  if (changes.length === 0) return null;
  return (
    <section aria-labelledby="changed">
      <h2 id="changed" className="text-[17px]">
        Changed last, and why
      </h2>
      <ul className="grid gap-x-6 sm:grid-cols-2">
        {changes.map((r) => (
          <li key={r.revision} className="flex justify-between gap-3 border-hairline border-t py-1 text-[14px]">
            <span>{r.reason}</span>
            <span className="whitespace-nowrap text-second">
              {r.author}, version {r.revision}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
