import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { type AskView, api, type CallView } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import type { StationProps } from "@/features/plan/stationProps";
import { Dates } from "@/features/season/Dates";
import { HopThread } from "@/features/season/HopThread";
import { Credits, Links } from "@/features/season/Names";
import { SeasonTape } from "@/features/season/SeasonTape";
import { useSeason } from "@/features/season/useSeason";
import { unitOf } from "@/features/sketch/model";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { PageArea } from "@/shared/ui/PageArea";
import { CallForm } from "./CallForm";

/** What is asked of the page, by when, and whom to name; what the plan knows of it ticks itself. */
export function CallStation({ page, plan, saved, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const [writing, setWriting] = useState(false);
  const call = plan.call?.call;
  const ticked = plan.call?.ticked ?? [];
  const found = useQuery({
    queryKey: ["call", page.id, page.revision],
    queryFn: () => api.pageCall(page.id),
    enabled: Boolean(call) && saved,
    placeholderData: (before) => before,
  });
  const sketch = plan.sketch.sketch;
  const put = (section: object, reason: string) => changePlan({ ...plan, call: { ...plan.call, ...section } }, reason);
  if (writing) {
    return (
      <main className="grid justify-items-center p-4">
        <div className="w-full max-w-[46rem]">
          <CallForm
            call={call ?? undefined}
            unit={unitOf(sketch)}
            pageSketch={sketch}
            onCancel={() => setWriting(false)}
            onSave={(next) => {
              setWriting(false);
              put({ call: next }, "what is asked");
            }}
          />
        </div>
      </main>
    );
  }
  if (!call) {
    return (
      <main className="p-6">
        <PageArea>
          <section className="sheet max-w-[70ch]">
            <h2>No call</h2>
            <p className="mt-1">
              This page answers no call, which is as good. If something is asked of it, write it down here: what must be
              on the page then ticks itself as far as the plan knows.
            </p>
            {mayChange && (
              <button type="button" className="button button-first mt-3" onClick={() => setWriting(true)}>
                Write down what is asked
              </button>
            )}
          </section>
        </PageArea>
        <div className="mt-4">
          <TeamsSeason page={page} />
        </div>
      </main>
    );
  }
  const tick = (id: string, on: boolean) =>
    put(
      { ticked: on ? [...ticked.filter((t) => t !== id), id] : ticked.filter((t) => t !== id) },
      `${id} ${on ? "ticked" : "not ticked"}`,
    );
  const takeOver = (now: CallView) => {
    // Her own ticks stay; what was asked, and the sketch it is held against, are the team's as they are now.
    const { repeats: _, unit: __, ...document } = now.document;
    const of = { id: now.id, revision: now.revision };
    put({ call: { ...document, ...(call.sketch && { sketch: call.sketch }) }, of }, "the call as it is now");
  };
  const held = found.data?.find((a) => a.held)?.held;
  return (
    <main className="grid grid-cols-[minmax(0,1fr)] gap-4 p-3.5">
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 min-[900px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] min-[1180px]:grid-cols-[392px_minmax(0,1fr)_372px]">
        <section aria-labelledby="call" className="sheet grid gap-2">
          <h2 id="call" className="text-[20px]">
            {call.name}
          </h2>
          {page.call && <OfTheTeam page={page} revision={plan.call?.of?.revision} onTakeOver={takeOver} />}
          {call.text && <p className="whitespace-pre-line">{call.text}</p>}
          {found.isError && <Failed error={found.error} onRetry={() => found.refetch()} />}
          <ul>
            {(found.data ?? []).map((ask) => (
              <Asked key={ask.id} ask={ask} ticked={ticked.includes(ask.id)} mayChange={mayChange} onTick={tick} />
            ))}
          </ul>
          <p className="flex flex-wrap gap-x-5 text-[13px] text-second">
            <span className="flex items-center gap-1.5">
              <Seen seen /> the plan sees it
            </span>
            <span className="flex items-center gap-1.5">
              <Seen seen={false} /> not yet
            </span>
          </p>
          {mayChange && (
            <button type="button" className="button justify-self-start" onClick={() => setWriting(true)}>
              Change what is asked
            </button>
          )}
        </section>
        <PageArea className="order-first min-w-0 min-[1180px]:order-none">
          <h2 className="mb-2">The page's sketch</h2>
          <PageNow page={page} plan={plan} />
          {held && (
            <section aria-label="The sketch, block by block" className="mt-3">
              <h3>The sketch, block by block</h3>
              <dl className="mt-1 flex flex-wrap gap-x-6 gap-y-1">
                {(["stayed", "moved", "went", "came", "doubled"] as const).map((what) => (
                  <div key={what} className="flex items-baseline gap-2">
                    <dd className="font-bold font-heading text-[24px]">{held[what]}</dd>
                    <dt className="text-second">{what}</dt>
                  </div>
                ))}
              </dl>
            </section>
          )}
        </PageArea>
        <aside aria-label="Ledger" className="sheet grid gap-4">
          <Dates call={call} own={page.due} />
          <Credits call={call} />
          {page.credit && <p>{page.credit}</p>}
          <Links call={call} />
        </aside>
      </div>
      <TeamsSeason page={page} />
      {page.call && <HopThread call={page.call.id} />}
    </main>
  );
}

type OfProps = Pick<StationProps, "page"> & { revision: number | undefined; onTakeOver: (now: CallView) => void };

/** The way to the team's call, and to what has been changed in it since. */
function OfTheTeam({ page, revision, onTakeOver }: OfProps) {
  const mayChange = useMayChange();
  const id = page.call?.id ?? "";
  const now = useQuery({ queryKey: ["calls", id], queryFn: () => api.call(id), enabled: id !== "" });
  const isOlder = now.data && revision !== undefined && now.data.revision > revision;
  return (
    <p className="text-second">
      <Link to="/calls/$callId" params={{ callId: id }} className="link">
        The team’s call
      </Link>
      {now.data && `, written by ${now.data.made_by}`}.{isOlder && " It has been changed since this page was begun. "}
      {isOlder && mayChange && (
        <button type="button" className="button" onClick={() => onTakeOver(now.data)}>
          Take the change over
        </button>
      )}
    </p>
  );
}

/** The team's season under the page's own call. */
function TeamsSeason({ page }: Pick<StationProps, "page">) {
  const season = useSeason();
  const calls = season.data?.calls.length ?? 0;
  if (!season.data || calls === 0) return null;
  return (
    <section aria-labelledby="season">
      <div className="mb-2 flex items-baseline justify-between gap-3">
        <h2 id="season">The season, {calls === 1 ? "one call" : `${calls} calls`}</h2>
        <Link to="/season" className="link">
          Who is free, dates to my calendar
        </Link>
      </div>
      <SeasonTape season={season.data} current={page.call?.id} />
    </section>
  );
}

type AskedProps = { ask: AskView; ticked: boolean; mayChange: boolean; onTick: (id: string, on: boolean) => void };

function Asked({ ask, ticked, mayChange, onTick }: AskedProps) {
  const says = <Sentence text={ask.says} />;
  if (ask.seen !== null && ask.seen !== undefined) {
    return (
      <li className="flex items-center gap-2.5 border-hairline border-t py-1.5">
        <Seen seen={ask.seen} />
        <b className="w-4">{ask.id}</b>
        <span className="flex-1">{ask.asks}</span>
        <span className="text-second">{says}</span>
      </li>
    );
  }
  return (
    <li className="border-hairline border-t py-0.5">
      <label className="flex items-center gap-2.5">
        <input
          type="checkbox"
          checked={ticked}
          disabled={!mayChange}
          onChange={(e) => onTick(ask.id, e.target.checked)}
        />
        <b className="w-4">{ask.id}</b>
        <span className="flex-1">{ask.asks}</span>
        <span className="text-second">{ask.says ? says : ticked ? "" : "tick it when it is there"}</span>
      </label>
    </li>
  );
}

/** A chip of tape: a tick where the plan sees it, a ring where it does not yet. */
function Seen({ seen }: { seen: boolean }) {
  const says = seen ? "The plan sees it" : "Not yet";
  return (
    <svg width="26" height="18" viewBox="0 0 26 18" role="img" aria-label={says} className="shrink-0">
      <title>{says}</title>
      <rect x="0.5" y="0.5" width="25" height="17" fill="#ffc93c" stroke="#2b2206" />
      <path d="M5 0V4M10 0V3M15 0V3M20 0V4" stroke="#2b2206" />
      {seen ? (
        <path d="M8 10L12 14L19 6" fill="none" stroke="#2b2206" strokeWidth="2.4" />
      ) : (
        <circle cx="13" cy="10" r="4" fill="none" stroke="#a01349" strokeWidth="2.4" />
      )}
    </svg>
  );
}

/** The page as its sketch stands in the plan, to look at while reading what is asked. */
function PageNow({ page, plan }: Pick<StationProps, "page" | "plan">) {
  const { canvas, blocks } = plan.sketch.sketch;
  return <Thumbnail canvas={canvas} blocks={blocks} width={420} height={250} label={`The sketch of ${page.name}`} />;
}
