// The state of a page being edited, as pure functions: what is shown, what is saved, and the steps that still wait.
// A change is a patch of the plan's sections, made at a station. Steps go to the server one after another, each under a key of its own,
// so that one that is sent twice acts once. Each station has its own undo and redo.

import type { PageView, PlanDoc } from "@/api/client";
import { broughtUp } from "./earlierDraft";
import { between, isEmpty, type Patch, patched } from "./patch";

export type SaveStatus = "saved" | "waiting" | "saving" | "offline" | "conflict" | "refused";

/** A step that the server has not confirmed yet. `sent` tells that it may have reached the server all the same. */
export type Step = { key: string; sent: boolean; station: string } & (
  | ({ kind: "write" } & Change)
  | { kind: "undo" }
  | { kind: "redo" }
  | { kind: "return"; to: number; plan: PlanDoc }
);

/** A change, and what takes it back. */
type Change = { reason: string; patch: Patch; inverse: Patch };

/** The changes that undo takes back and redo brings back at a station, as far as they are known here; the next one of each stands last. */
type Trail = { undo: readonly Change[]; redo: readonly Change[] };

/** A plan, and each station's trail from it. */
type Standing = { plan: PlanDoc; trails: Readonly<Record<string, Trail>> };

export type PlanState = {
  /** The page as the server last told it. */
  page: PageView;
  /** What that and all steps that wait come to. */
  ahead: Standing;
  /** The revision that the first waiting step starts from. */
  base: number;
  /** Steps that wait, oldest first. */
  queue: readonly Step[];
  /** Unsent changes that were taken back, newest last: redo brings them back. */
  withdrawn: readonly Step[];
  status: SaveStatus;
  /** The page as somebody else left it, in a conflict. */
  newest?: PageView;
  /** Why a write was refused. */
  refusal?: string;
  /** Why the last step back or on was not taken. */
  notTaken?: string;
  /** The browser had no room to keep the steps that wait. */
  unkept?: boolean;
};

export type PlanEvent =
  | { type: "changed"; station: string; plan: PlanDoc; reason: string; key: string }
  | { type: "undo"; station: string; key: string }
  | { type: "redo"; station: string; key: string }
  | { type: "return"; station: string; to: number; plan: PlanDoc; key: string }
  | { type: "sending" }
  | { type: "saved"; key: string; page: PageView }
  | { type: "nothing"; key: string; why: string }
  | { type: "offline" }
  | { type: "refused"; why: string }
  | { type: "conflict"; newest: PageView }
  | { type: "heard"; page: PageView }
  | { type: "kept"; room: boolean }
  | { type: "keepMine"; key: string }
  | { type: "takeTheirs"; keys: readonly [string, string] };

export type Draft = { base: number; queue: readonly Step[] };

const NO_TRAIL: Trail = { undo: [], redo: [] };

/** The state of a page as loaded, with the steps that an earlier visit could not save. */
export function opened(page: PageView, draft: Draft | undefined): PlanState {
  const state: PlanState = {
    page,
    ahead: asTold(page),
    base: page.revision,
    queue: [],
    withdrawn: [],
    status: "saved",
  };
  // The server knows by their keys which of them it has done, and by the revision whether somebody was quicker.
  if (!draft?.queue.length) return state;
  const { base, queue } = broughtUp(draft, page);
  return recounted({ ...state, base, queue, status: "waiting" });
}

function asTold(page: PageView): Standing {
  return { plan: page.plan, trails: page.trails as unknown as Record<string, Trail> };
}

/** Where a step leads. One whose change is known to the server alone leaves what is shown as it is. */
function stepped(standing: Standing, step: Step): Standing {
  const { plan, trails } = standing;
  const trail = trails[step.station] ?? NO_TRAIL;
  const to = (change: Patch, next: Trail): Standing => ({
    plan: patched(plan, change),
    trails: { ...trails, [step.station]: next },
  });
  switch (step.kind) {
    case "write":
      return to(step.patch, { undo: [...trail.undo, step], redo: [] });
    case "return": {
      const patch = between(plan, step.plan);
      const change = { reason: `returned to version ${step.to}`, patch, inverse: between(step.plan, plan) };
      return to(patch, { undo: [...trail.undo, change], redo: [] });
    }
    case "undo": {
      const last = trail.undo.at(-1);
      return last ? to(last.inverse, { undo: trail.undo.slice(0, -1), redo: [...trail.redo, last] }) : standing;
    }
    case "redo": {
      const next = trail.redo.at(-1);
      return next ? to(next.patch, { undo: [...trail.undo, next], redo: trail.redo.slice(0, -1) }) : standing;
    }
  }
}

/** The state with what all its steps come to. */
function recounted(state: PlanState): PlanState {
  return { ...state, ahead: state.queue.reduce(stepped, asTold(state.page)) };
}

/** The plan that is shown and edited. */
export function shownPlan(state: PlanState): PlanDoc {
  return state.ahead.plan;
}

const lastAt = (steps: readonly Step[], station: string) => steps.findLast((s) => s.station === station);

/** What undo takes back and redo brings back at a station, if anything. */
export function steps(state: PlanState, station: string): { undo: string | undefined; redo: string | undefined } {
  const trail = state.ahead.trails[station] ?? NO_TRAIL;
  const back = lastAt(state.withdrawn, station);
  return {
    undo: trail.undo.at(-1)?.reason,
    redo: back?.kind === "write" ? back.reason : trail.redo.at(-1)?.reason,
  };
}

/** The state after an event; the same object when nothing changed. */
export function reduce(state: PlanState, event: PlanEvent): PlanState {
  switch (event.type) {
    case "changed":
      return changed(state, event);
    case "undo":
      return undone(state, event);
    case "redo":
      return redone(state, event);
    case "return": {
      const { station, to, plan, key } = event;
      return waiting(state, [...state.queue, { kind: "return", station, to, plan, key, sent: false }]);
    }
    case "sending": {
      const [head, ...rest] = state.queue;
      return head ? { ...state, status: "saving", queue: [{ ...head, sent: true }, ...rest] } : state;
    }
    case "saved": {
      const { newest: _, refusal: __, ...rest } = state;
      return ended({ ...rest, page: event.page, base: event.page.revision }, event.key);
    }
    case "nothing":
      return { ...ended(state, event.key), notTaken: event.why };
    case "offline":
      return { ...state, status: "offline" };
    case "refused":
      return { ...state, status: "refused", refusal: event.why };
    case "conflict":
      // Only what she changed herself is worth a question; a step back or on is simply not taken.
      return state.queue.some((s) => s.kind === "write")
        ? { ...state, status: "conflict", newest: event.newest }
        : recounted({ ...state, page: event.newest, base: event.newest.revision, queue: [], status: "saved" });
    case "heard":
      return state.status === "saved" && isNews(event.page, state)
        ? recounted({ ...state, page: event.page, base: event.page.revision, withdrawn: [] })
        : state;
    case "kept":
      return Boolean(state.unkept) === !event.room ? state : { ...state, unkept: !event.room };
    case "keepMine":
      return settled(state, (newest) => [mine(state, newest, `kept over version ${newest.revision}`, event.key)]);
    case "takeTheirs":
      // Hers goes into the history first, so that undo has it.
      return settled(state, (newest) => [
        mine(state, newest, "kept aside", event.keys[0]),
        {
          kind: "return",
          station: lastStation(state),
          to: newest.revision,
          plan: newest.plan,
          key: event.keys[1],
          sent: false,
        },
      ]);
  }
}

/** Whether a page that was fetched is newer than the one that is known. */
const isNews = (page: PageView, state: PlanState) =>
  page.revision > state.base || (page.revision === state.base && page.details_revision > state.page.details_revision);

/** A step that the server has answered. */
function ended(state: PlanState, key: string): PlanState {
  const queue = state.queue.filter((s) => s.key !== key);
  return recounted({ ...state, queue, status: queue.length ? "waiting" : "saved" });
}

function waiting(state: PlanState, queue: readonly Step[]): PlanState {
  const { notTaken: _, ...rest } = state;
  return recounted({
    ...rest,
    queue,
    status: state.status === "saving" || state.status === "conflict" ? state.status : "waiting",
  });
}

type Changed = Extract<PlanEvent, { type: "changed" }>;

/** A change joins the last one when both are of one kind and that has not been sent: typing is one step, not ten. */
function changed(state: PlanState, { station, plan, reason, key }: Changed): PlanState {
  if (isEmpty(between(shownPlan(state), plan))) return state;
  // What was refused would be refused again: the new plan takes its place.
  const queue = state.status === "refused" ? [] : state.queue;
  const last = queue.at(-1);
  const joins = last?.kind === "write" && !last.sent && last.reason === reason && last.station === station;
  const before = joins ? queue.slice(0, -1) : queue;
  const from = before.reduce(stepped, asTold(state.page)).plan;
  const step: Step = {
    kind: "write",
    station,
    patch: between(from, plan),
    inverse: between(plan, from),
    reason,
    key: joins ? last.key : key,
    sent: false,
  };
  return { ...waiting(state, [...before, step]), withdrawn: [] };
}

type Taken = { station: string; key: string };

function undone(state: PlanState, { station, key }: Taken): PlanState {
  const last = state.queue.at(-1);
  const isHere = last?.station === station;
  if (isHere && last.kind === "write" && (!last.sent || state.status === "refused")) {
    return { ...without(state), withdrawn: [...state.withdrawn, { ...last, sent: false }] };
  }
  // A step on that has not been sent is simply not taken.
  if (isHere && last.kind === "redo" && !last.sent) return without(state);
  if (!steps(state, station).undo) return state;
  return waiting(state, [...state.queue, { kind: "undo", station, key, sent: false }]);
}

function redone(state: PlanState, { station, key }: Taken): PlanState {
  const back = lastAt(state.withdrawn, station);
  if (back) {
    return { ...waiting(state, [...state.queue, back]), withdrawn: state.withdrawn.filter((s) => s !== back) };
  }
  const last = state.queue.at(-1);
  if (last?.station === station && last.kind === "undo" && !last.sent) return without(state);
  if (!steps(state, station).redo) return state;
  return waiting(state, [...state.queue, { kind: "redo", station, key, sent: false }]);
}

/** The state without its last step. */
function without(state: PlanState): PlanState {
  const queue = state.queue.slice(0, -1);
  return recounted({ ...state, queue, status: queue.length ? state.status : "saved" });
}

/** A conflict settled: the page as somebody else left it, and what is to be done on top of that. */
function settled(state: PlanState, queue: (newest: PageView) => readonly Step[]): PlanState {
  const { newest, ...rest } = state;
  if (!newest) return state;
  const steps = queue(newest);
  return recounted({ ...rest, page: newest, base: newest.revision, queue: steps, withdrawn: [], status: "waiting" });
}

const lastStation = (state: PlanState) => state.queue.at(-1)?.station ?? "fit";

/** All that she changed, laid over the page as somebody else left it. */
function mine(state: PlanState, newest: PageView, reason: string, key: string): Step {
  const plan = patched(newest.plan, between(state.page.plan, shownPlan(state)));
  return {
    kind: "write",
    station: lastStation(state),
    patch: between(newest.plan, plan),
    inverse: between(plan, newest.plan),
    reason,
    key,
    sent: false,
  };
}
