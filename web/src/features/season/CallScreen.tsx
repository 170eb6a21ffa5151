import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useState } from "react";
import { ApiError, api, type CallDoc, type CallView } from "@/api/client";
import { CallForm } from "@/features/call/CallForm";
import { useMayChange } from "@/features/people/useMe";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { ChainForm } from "./ChainForm";
import { Dates } from "./Dates";
import { HopThread, useHop } from "./HopThread";
import { Credits, Links } from "./Names";
import { Late, Maker } from "./SeasonTape";
import { useBegin, useRefreshCalls, useTaking } from "./useSeason";
import { askText, kindText, longDay, repeatText } from "./words";

/** One of the team's calls: what is asked, by when, of whom, and the pages that answer it. */
export function CallScreen() {
  const { callId } = useParams({ from: "/house/calls/$callId" });
  const call = useQuery({ queryKey: ["calls", callId], queryFn: () => api.call(callId) });
  const [writing, setWriting] = useState(false);
  if (call.isError) return <Failed error={call.error} onRetry={() => call.refetch()} />;
  if (!call.data) {
    return (
      <main className="p-[18px]">
        <Notice>Fetching the call…</Notice>
      </main>
    );
  }
  if (writing) return <Rewrite call={call.data} onClose={() => setWriting(false)} />;
  return <Shown call={call.data} onWrite={() => setWriting(true)} />;
}

function Shown({ call, onWrite }: { call: CallView; onWrite: () => void }) {
  const mayChange = useMayChange();
  const asked = call.document;
  const isHop = asked.kind === "hop";
  return (
    <main className="grid grid-cols-[minmax(0,1fr)] gap-4 px-[18px] pb-6">
      <div className="grid items-start gap-4 md:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] xl:grid-cols-[minmax(0,26rem)_minmax(0,1fr)_minmax(0,22rem)]">
        <section aria-labelledby="call" className="sheet grid gap-2">
          <div>
            <h1 id="call" className="text-[20px]">
              {asked.name}
            </h1>
            <p className="text-second">
              {call.made_by} asks, {longDay(call.made_at.slice(0, 10))}: {kindText(asked)}
              {call.archived && ". It has been set aside"}.
            </p>
          </div>
          {asked.text && <p className="whitespace-pre-line">{asked.text}</p>}
          <ul>
            {asked.asks?.map((ask) => (
              <li key={ask.id} className="flex gap-2.5 border-hairline border-t py-1.5">
                <b className="w-4">{ask.id}</b>
                <span>
                  {askText(ask, asked.unit ?? "in")}
                  {ask.what === "sketch" && asked.sketch && <span className="text-second">: {asked.sketch.name}</span>}
                </span>
              </li>
            ))}
          </ul>
          {mayChange && (
            <div className="flex flex-wrap gap-2">
              <button type="button" className="button" onClick={onWrite}>
                Change what is asked
              </button>
              <SetAside call={call} />
            </div>
          )}
        </section>
        <Makers call={call} isHop={isHop} />
        <aside aria-label="Dates and names" className="sheet grid gap-4">
          <Dates call={asked} moments={call} />
          {asked.repeats && asked.due && <p>It comes again {repeatText(asked.repeats, asked.due)}.</p>}
          <Credits call={asked} />
          <Links call={asked} />
        </aside>
      </div>
      {isHop && <HopThread call={call.id} />}
      <Earlier call={call} />
    </main>
  );
}

/** Who takes part, and the way to take it oneself. */
function Makers({ call, isHop }: { call: CallView; isHop: boolean }) {
  const mayChange = useMayChange();
  const { take, giveBack, error } = useTaking();
  const begin = useBegin();
  const hop = useHop(call.id, isHop);
  const [chain, setChain] = useState(false);
  const [sketch, setSketch] = useState("");
  const drawer = useQuery({ queryKey: ["sketches", "", false], queryFn: () => api.sketches("", false) });
  const mine = call.makers.find((m) => m.me);
  const toBegin = mayChange && mine && !mine.page;
  const needsSketch = !call.document.sketch && !call.sketch && !isHop;
  const told = error ?? begin.error;
  return (
    <section aria-labelledby="makers" className="sheet grid gap-2">
      <h2 id="makers">Who makes it</h2>
      {call.makers.length === 0 && <p className="text-second">Nobody has it yet.</p>}
      <ul>
        {call.makers.map((m) => (
          <li key={m.person} className="flex flex-wrap items-center gap-x-3 border-hairline border-t py-1.5">
            <Maker maker={m} />
            {m.page ? (
              <Link to="/pages/$pageId/$station" params={{ pageId: m.page, station: "fit" }} className="link">
                {m.page_name}
              </Link>
            ) : (
              <span className="text-second">{m.waits_for ? `waits for ${m.waits_for}’s page` : "not begun"}</span>
            )}
            {m.late_days ? <Late days={m.late_days} /> : null}
          </li>
        ))}
      </ul>
      {toBegin && needsSketch && (
        <label className="grid gap-1">
          <span className="font-medium">Begin with</span>
          <select className="field py-1.5" value={sketch} onChange={(e) => setSketch(e.target.value)}>
            <option value="">a sketch out of the drawer…</option>
            {drawer.data?.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {told && (
        <p role="alert" className="text-measure">
          {told.message}
        </p>
      )}
      {mayChange && (
        <div className="flex flex-wrap gap-2">
          {toBegin && (
            <button
              type="button"
              className="button button-first"
              disabled={begin.isPending || (needsSketch && !sketch)}
              onClick={() => begin.mutate({ call: call.id, ...(sketch ? { sketch } : {}) })}
            >
              Begin my page
            </button>
          )}
          {!mine && !isHop && (
            <button type="button" className="button button-first" onClick={() => take.mutate(call.id)}>
              Take it
            </button>
          )}
          {mine && !isHop && (
            <button type="button" className="button" onClick={() => giveBack.mutate(call.id)}>
              Give it back
            </button>
          )}
          {isHop && hop.data && (
            <button type="button" className="button" onClick={() => setChain(true)}>
              {hop.data.links.length > 0 ? "Change the chain" : "Put the chain together"}
            </button>
          )}
        </div>
      )}
      {chain && hop.data && <ChainForm call={call.id} hop={hop.data} onClose={() => setChain(false)} />}
    </section>
  );
}

function SetAside({ call }: { call: CallView }) {
  const refresh = useRefreshCalls();
  const change = useMutation({
    mutationFn: () => api.changeCall(call.id, { revision: call.revision, archived: !call.archived }),
    onSettled: refresh,
  });
  return (
    <button type="button" className="button" disabled={change.isPending} onClick={() => change.mutate()}>
      {call.archived ? "Take it out again" : "Set it aside"}
    </button>
  );
}

function Rewrite({ call, onClose }: { call: CallView; onClose: () => void }) {
  const refresh = useRefreshCalls();
  const change = useMutation({
    mutationFn: ({ document, sketch }: { document: CallDoc; sketch: string | undefined }) =>
      api.changeCall(call.id, { revision: call.revision, document, ...(sketch ? { sketch } : {}) }),
    onSuccess: () => {
      refresh();
      onClose();
    },
    onError: (error) => {
      // What she wrote stays in the form; beside it she can look at the newest.
      if (error instanceof ApiError && error.problem.type === "stale-call") refresh();
    },
  });
  return (
    <main className="grid justify-items-center px-[18px] pb-6">
      <h1 className="sr-only">Change “{call.document.name}”</h1>
      <div className="w-full max-w-[46rem]">
        <CallForm
          call={call.document}
          unit={call.document.unit === "mm" ? "mm" : "in"}
          team
          sketchId={call.sketch ?? undefined}
          error={change.error ?? undefined}
          onCancel={onClose}
          onSave={(document, sketch) => change.mutate({ document, sketch })}
        />
      </div>
    </main>
  );
}

/** What was asked before: each change of a call is kept. */
function Earlier({ call }: { call: CallView }) {
  const [open, setOpen] = useState(false);
  const all = useQuery({
    queryKey: ["calls", call.id, "revisions", call.revision],
    queryFn: () => api.callRevisions(call.id),
    enabled: open,
  });
  const mayChange = useMayChange();
  const refresh = useRefreshCalls();
  const back = useMutation({
    mutationFn: async (revision: number) => {
      const document = await api.callRevision(call.id, revision);
      return api.changeCall(call.id, { revision: call.revision, document });
    },
    onSettled: refresh,
  });
  if (call.revision === 1) return null;
  return (
    <section aria-label="Earlier versions">
      <button type="button" className="button" aria-expanded={open} onClick={() => setOpen((o) => !o)}>
        Earlier versions
      </button>
      {back.error && (
        <p role="alert" className="mt-2 text-measure">
          {back.error.message}
        </p>
      )}
      {open && (
        <ol className="mt-2 grid gap-1">
          {all.data?.map((r) => (
            <li key={r.revision}>
              {r.revision}: {r.reason} by {r.author},{" "}
              {new Date(r.made_at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" })}{" "}
              {mayChange && r.revision !== call.revision && (
                <button type="button" className="link" onClick={() => back.mutate(r.revision)}>
                  Ask this again
                </button>
              )}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}
