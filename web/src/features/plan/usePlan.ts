import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useReducer, useRef, useState } from "react";
import { api, type PageView } from "@/api/client";
import { useMe } from "@/features/people/useMe";
import { onTold } from "@/shared/events/stream";
import { dropDraft, holdThing, keepDraft } from "./drafts";
import { failed } from "./failed";
import { type Draft, opened, type PlanEvent, type PlanState, reduce, type Step } from "./planState";

/** Changes are written this long after the last one. */
const QUIET = 300;
/** A step that found no server is tried again after this. */
const RETRY = 2000;

/** A page's plan with autosave: steps that can't be written yet are kept in the browser until they are. */
export function usePlan(page: PageView, draft: Draft | undefined) {
  const queries = useQueryClient();
  const [state, dispatch] = useReducer(reduce, undefined, () => opened(page, draft));
  const latest = useRef(state);
  latest.current = state;
  const { status, queue, base } = state;

  const person = useMe().data?.id;
  const name = state.page.name;

  useEffect(() => holdThing(page.id), [page.id]);

  useEffect(() => {
    if (!person) return;
    if (queue.length === 0) dropDraft(person, page.id);
    else keepDraft(person, page.id, name, { base, queue }).then((room) => dispatch({ type: "kept", room }));
  }, [person, page.id, name, queue, base]);

  useEffect(() => {
    if (status !== "waiting" && status !== "offline") return;
    const steady = queue[0]?.kind === "write" ? QUIET : 0;
    const timer = setTimeout(() => send(page.id, latest.current, dispatch), status === "waiting" ? steady : RETRY);
    return () => clearTimeout(timer);
  }, [page.id, status, queue]);

  useEffect(() => {
    if (status !== "saved") return;
    // The table shows where pages stand.
    queries.invalidateQueries({ queryKey: ["pages"] });
    queries.setQueryData(["page", page.id], { page: state.page, draft: undefined });
  }, [queries, page.id, status, state.page]);

  // What others did to the page while something of hers was on its way is looked at once that has come through.
  const [others, setOthers] = useState(0);
  useEffect(
    () =>
      onTold((told) => {
        if (told.kind === "again") setOthers(Number.POSITIVE_INFINITY);
        else if (told.event.thing === page.id && told.event.what !== "layout") {
          const { what, revision } = told.event;
          setOthers((known) => (what === "page" ? Math.max(known, revision) : Number.POSITIVE_INFINITY));
        }
      }),
    [page.id],
  );
  useEffect(() => {
    if (status !== "saved" || others <= base) return;
    setOthers(0);
    api.page(page.id).then(
      (heard) => dispatch({ type: "heard", page: heard }),
      () => {},
    );
  }, [page.id, status, others, base]);

  // A tab that is closed on unsaved changes asks first; they are kept either way.
  useEffect(() => {
    if (status === "saved") return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [status]);

  return { state, dispatch };
}

function call(id: string, base: number, step: Step): Promise<PageView> {
  switch (step.kind) {
    case "write": {
      const { station, patch, reason } = step;
      return api.changePlan(id, { revision: base, station, patch, reason: reason || "changed" }, step.key);
    }
    case "undo":
      return api.undo(id, { revision: base, station: step.station }, step.key);
    case "redo":
      return api.redo(id, { revision: base, station: step.station }, step.key);
    case "return":
      return api.returnTo(id, { revision: base, station: step.station, to: step.to }, step.key);
  }
}

async function send(id: string, state: PlanState, dispatch: React.Dispatch<PlanEvent>) {
  const step = state.queue[0];
  if (!step) return;
  dispatch({ type: "sending" });
  try {
    dispatch({ type: "saved", key: step.key, page: await call(id, state.base, step) });
  } catch (error) {
    dispatch(failed(error, step));
  }
}
