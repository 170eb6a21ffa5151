import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { api, type CallDoc, type PastedView } from "@/api/client";
import { CallForm } from "@/features/call/CallForm";
import { useMayChange } from "@/features/people/useMe";
import { useOnce } from "@/shared/query/useOnce";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { BringCalendar, PasteText } from "./BringIn";
import { HopThread } from "./HopThread";
import { MyCalendar } from "./MyCalendar";
import { Notices } from "./Notices";
import { CallColumn, SeasonTape } from "./SeasonTape";
import { useRefreshCalls, useSeason } from "./useSeason";
import { shortDay } from "./words";

/** So many hops are shown page by page. */
const MOST_HOPS = 2;

type Open = "paste" | "calendar" | "mine" | undefined;
type Draft = { call: CallDoc; noticed?: PastedView["noticed"] };

/** The team's season: what is asked, by when, of whom. */
export function SeasonScreen() {
  const season = useSeason();
  const mayChange = useMayChange();
  const [open, setOpen] = useState<Open>();
  const [draft, setDraft] = useState<Draft>();
  if (draft) return <NewCall draft={draft} onClose={() => setDraft(undefined)} />;
  const calls = season.data?.calls ?? [];
  const undated = calls.filter((c) => !c.due);
  const hops = calls.filter((c) => c.kind === "hop").slice(0, MOST_HOPS);
  const free = (season.data?.free ?? []).map((f) =>
    f.from === season.data?.today ? `${f.maker} now` : `${f.maker} from ${shortDay(f.from)}`,
  );
  return (
    <main className="grid grid-cols-[minmax(0,1fr)] gap-4 px-[18px] pb-6">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-[20px]">
          The season{calls.length > 0 && `, ${calls.length === 1 ? "one call" : `${calls.length} calls`}`}
        </h1>
        <div className="ml-auto flex flex-wrap gap-2">
          <button type="button" className="button" onClick={() => setOpen("mine")}>
            Dates to my calendar
          </button>
          {mayChange && (
            <>
              <button type="button" className="button" onClick={() => setOpen("calendar")}>
                Bring in a calendar
              </button>
              <button type="button" className="button" onClick={() => setOpen("paste")}>
                Paste a text
              </button>
              <button
                type="button"
                className="button button-first"
                onClick={() => setDraft({ call: { name: "", kind: "challenge", asks: [] } })}
              >
                Write a call
              </button>
            </>
          )}
        </div>
      </div>
      {season.isError && <Failed error={season.error} onRetry={() => season.refetch()} />}
      {season.isPending && <Notice>Fetching the season…</Notice>}
      {season.data && calls.length === 0 && (
        <Notice>Nothing is asked yet. Write a call, paste the text of one, or bring in a calendar.</Notice>
      )}
      {season.data && calls.length > 0 && <SeasonTape season={season.data} />}
      <div className="grid gap-4 lg:grid-cols-2">
        <section aria-labelledby="notices" className="sheet">
          <div className="flex items-baseline justify-between">
            <h2 id="notices">To be reminded of</h2>
            <span className="text-second">yours first</span>
          </div>
          {season.data && <Notices notices={season.data.notices} />}
        </section>
        <section aria-labelledby="free" className="sheet">
          <h2 id="free">Who is free</h2>
          <p className="mt-1">{free.length > 0 ? `${free.join(", ")}.` : "…"}</p>
          {undated.length > 0 && (
            <>
              <h2 className="mt-3">Without a day</h2>
              <ul className="mt-1 flex flex-wrap gap-6">
                {undated.map((call) => (
                  <li key={call.id}>
                    <CallColumn call={call} current={false} dated="long" />
                  </li>
                ))}
              </ul>
            </>
          )}
        </section>
      </div>
      {hops.map((call) => (
        <HopThread key={call.id} call={call.id} name={call.name} />
      ))}
      {open === "mine" && <MyCalendar onClose={() => setOpen(undefined)} />}
      {open === "calendar" && <BringCalendar onClose={() => setOpen(undefined)} />}
      {open === "paste" && (
        <PasteText
          onClose={() => setOpen(undefined)}
          onRead={(read) => {
            setOpen(undefined);
            setDraft({ call: read.document, noticed: read.noticed });
          }}
        />
      )}
    </main>
  );
}

function NewCall({ draft, onClose }: { draft: Draft; onClose: () => void }) {
  const refresh = useRefreshCalls();
  const navigate = useNavigate();
  const add = useOnce(
    ({ call, sketch }: { call: CallDoc; sketch: string | undefined }, key) =>
      api.addCall({ document: call, ...(sketch ? { sketch } : {}) }, key),
    (made) => {
      refresh();
      navigate({ to: "/calls/$callId", params: { callId: made.id } });
    },
  );
  return (
    <main
      className={`grid grid-cols-[minmax(0,46rem)] items-start justify-center gap-4 px-[18px] pb-6 ${draft.noticed ? "lg:grid-cols-[minmax(0,46rem)_minmax(0,24rem)]" : ""}`}
    >
      <h1 className="sr-only">A call for the team</h1>
      <CallForm
        call={draft.call}
        unit={draft.call.unit === "mm" ? "mm" : "in"}
        team
        error={add.error ?? undefined}
        onCancel={onClose}
        onSave={(call, sketch) => add.mutate({ call, sketch })}
      />
      {draft.noticed && <Noticed noticed={draft.noticed} />}
    </main>
  );
}

/** What was understood of a pasted text, with the words it was read from. */
function Noticed({ noticed }: { noticed: PastedView["noticed"] }) {
  return (
    <section aria-labelledby="noticed" className="sheet">
      <h2 id="noticed">Look it over</h2>
      <p className="text-second">This was understood, from these words:</p>
      <dl>
        {noticed.map((n) => (
          <div key={`${n.words} ${n.taken_for}`} className="border-hairline border-t py-1.5 leading-snug">
            <dt className="text-second">“{n.words}”</dt>
            <dd>{n.taken_for}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
