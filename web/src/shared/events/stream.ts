// What happens to the team's things. A browser has one stream of it however many tabs are open: the tab that holds the lock listens, and
// tells the others; when it goes, the next one goes on from the last event that was heard.

import type { EventView } from "@/api/client";

/** What is told: that something changed, or that something may have been missed. */
export type Told = { kind: "changed"; id: number; event: EventView } | { kind: "again" };

/** A stream that the server has closed is opened again after this, then after twice as long, and on. */
const AGAIN = { first: 1_000, most: 30_000 };

type Listener = (told: Told) => void;
const listeners = new Set<Listener>();

/** Listens to all that is told, until the returned function is called. */
export function onTold(listener: Listener): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

const say = (told: Told) => {
  for (const listener of listeners) listener(told);
};

/** Keeps a team's stream, in this tab or through another, until the returned function is called. */
export function keepStream(team: string): () => void {
  const name = `metrosk-events-${team}`;
  const channel = new BroadcastChannel(name);
  const stop = new AbortController();
  let last: number | undefined;
  const heard = (told: Told) => {
    if (told.kind === "changed") last = Math.max(last ?? 0, told.id);
    say(told);
  };
  channel.onmessage = (message: MessageEvent<Told>) => heard(message.data);
  const hold = () =>
    listen(
      team,
      () => last,
      stop.signal,
      (told) => {
        channel.postMessage(told);
        heard(told);
      },
    );
  if (navigator.locks) navigator.locks.request(name, { signal: stop.signal }, hold).catch(() => {});
  else hold();
  return () => {
    stop.abort();
    channel.close();
  };
}

/** Listens to the server's own stream until it is told to stop. */
function listen(
  team: string,
  last: () => number | undefined,
  stop: AbortSignal,
  tell: (told: Told) => void,
): Promise<void> {
  return new Promise((done) => {
    let source: EventSource | undefined;
    let wait = AGAIN.first;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const open = () => {
      const after = last();
      const query = new URLSearchParams({ team, ...(after === undefined ? {} : { after: String(after) }) });
      source = new EventSource(`/api/events?${query}`);
      source.addEventListener("listening", () => {
        // Without an event to go on from, what happened before is looked at anew.
        if (wait > AGAIN.first && last() === undefined) tell({ kind: "again" });
        wait = AGAIN.first;
      });
      source.addEventListener("changed", (e: MessageEvent<string>) => {
        tell({ kind: "changed", id: Number(e.lastEventId), event: JSON.parse(e.data) });
      });
      source.addEventListener("again", () => tell({ kind: "again" }));
      source.onerror = () => {
        // A connection that broke is made anew by the browser itself; an answer that was a refusal is not.
        if (source?.readyState !== EventSource.CLOSED || stop.aborted) return;
        timer = setTimeout(open, wait);
        wait = Math.min(wait * 2, AGAIN.most);
      };
    };
    stop.addEventListener("abort", () => {
      clearTimeout(timer);
      source?.close();
      done();
    });
    open();
  });
}
