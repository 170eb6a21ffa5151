// The state of a page being edited, as pure functions: what is shown, what is saved, and the steps that still wait.
// Steps go to the server one after another, each under a key of its own, so that one that is sent twice acts once.

import type { PageView, PlanDoc } from "@/api/client";

export type SaveStatus = "saved" | "waiting" | "saving" | "offline" | "conflict" | "refused";

/** A step that the server has not confirmed yet. `sent` tells that it may have reached the server all the same. */
export type Step = { key: string; sent: boolean } & (
  | { kind: "write"; plan: PlanDoc; reason: string }
  | { kind: "undo" }
  | { kind: "redo" }
  | { kind: "return"; to: number; plan: PlanDoc }
);

/** A plan, and the change that brought it there: what undo takes back. */
type Made = { plan: PlanDoc; step: string | undefined };

/** A plan with the plans that undo and redo lead to, as far as they are known here; the next one of each stands last. */
type Trail = { now: Made; before: readonly Made[]; after: readonly Made[] };

export type PlanState = {
  /** The page as the server last told it. */
  page: PageView;
  /** That page's plan, and where undo and redo lead from it. */
  trail: Trail;
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
  /** The browser had no room to keep the steps that wait. */
  unkept?: boolean;
};

export type PlanEvent =
  | { type: "changed"; plan: PlanDoc; reason: string; key: string }
  | { type: "undo"; key: string }
  | { type: "redo"; key: string }
  | { type: "return"; to: number; plan: PlanDoc; key: string }
  | { type: "sending" }
  | { type: "saved"; key: string; page: PageView }
  | { type: "nothing"; key: string }
  | { type: "offline" }
  | { type: "refused"; why: string }
  | { type: "conflict"; newest: PageView }
  | { type: "heard"; page: PageView }
  | { type: "kept"; room: boolean }
  | { type: "keepMine"; key: string }
  | { type: "takeTheirs"; keys: readonly [string, string] };

export type Draft = { base: number; queue: readonly Step[] };

/** The state of a page as loaded, with the steps that an earlier visit could not save. */
export function opened(page: PageView, draft: Draft | undefined): PlanState {
  const state: PlanState = {
    page,
    trail: trailOf(page),
    base: page.revision,
    queue: [],
    withdrawn: [],
    status: "saved",
  };
  // The server knows by their keys which of them it has done, and by the revision whether somebody was quicker.
  return draft?.queue.length ? { ...state, base: draft.base, queue: draft.queue, status: "waiting" } : state;
}

function trailOf(page: PageView): Trail {
  return told({ now: { plan: page.plan, step: undefined }, before: [], after: [] }, page);
}

/** A trail as the server tells its end; what lies further back is known from before. */
function told(trail: Trail, page: PageView): Trail {
  const last = (made: readonly Made[], plan: PlanDoc | null | undefined, step: string | undefined) =>
    plan ? [...made.slice(0, -1), { plan, step: step ?? made.at(-1)?.step }] : [];
  return {
    now: { plan: page.plan, step: page.undo ?? undefined },
    before: last(trail.before, page.undo_plan, undefined),
    after: last(trail.after, page.redo_plan, page.redo ?? undefined),
  };
}

/** Where a step leads. One whose plan is known to the server alone leaves what is shown as it is. */
function stepped({ now, before, after }: Trail, step: Step): Trail {
  switch (step.kind) {
    case "write":
      return { now: { plan: step.plan, step: step.reason }, before: [...before, now], after: [] };
    case "return":
      return { now: { plan: step.plan, step: `returned to version ${step.to}` }, before: [...before, now], after: [] };
    case "undo": {
      const to = before.at(-1);
      return to ? { now: to, before: before.slice(0, -1), after: [...after, now] } : { now, before, after };
    }
    case "redo": {
      const to = after.at(-1);
      return to ? { now: to, before: [...before, now], after: after.slice(0, -1) } : { now, before, after };
    }
  }
}

/** What all steps that wait come to. */
const ahead = (state: PlanState): Trail => state.queue.reduce(stepped, state.trail);

/** The plan that is shown and edited. */
export function shownPlan(state: PlanState): PlanDoc {
  return ahead(state).now.plan;
}

/** What undo takes back and redo brings back, if anything. */
export function steps(state: PlanState): { undo: string | undefined; redo: string | undefined } {
  const { now, after } = ahead(state);
  const back = state.withdrawn.at(-1);
  return { undo: now.step, redo: back?.kind === "write" ? back.reason : after.at(-1)?.step };
}

/** The state after an event; the same object when nothing changed. */
export function reduce(state: PlanState, event: PlanEvent): PlanState {
  switch (event.type) {
    case "changed":
      return event.plan === shownPlan(state) ? state : changed(state, event);
    case "undo":
      return undone(state, event.key);
    case "redo":
      return redone(state, event.key);
    case "return":
      return waiting(state, [
        ...state.queue,
        { kind: "return", to: event.to, plan: event.plan, key: event.key, sent: false },
      ]);
    case "sending": {
      const [head, ...rest] = state.queue;
      return head ? { ...state, status: "saving", queue: [{ ...head, sent: true }, ...rest] } : state;
    }
    case "saved": {
      const done = state.queue.find((s) => s.key === event.key);
      const queue = state.queue.filter((s) => s.key !== event.key);
      const { newest: _, refusal: __, ...rest } = state;
      return {
        ...rest,
        page: event.page,
        trail: told(done ? stepped(state.trail, done) : state.trail, event.page),
        base: event.page.revision,
        queue,
        status: queue.length ? "waiting" : "saved",
      };
    }
    case "nothing": {
      const queue = state.queue.filter((s) => s.key !== event.key);
      return { ...state, queue, status: queue.length ? "waiting" : "saved" };
    }
    case "offline":
      return { ...state, status: "offline" };
    case "refused":
      return { ...state, status: "refused", refusal: event.why };
    case "conflict":
      // Only what she changed herself is worth a question; a step back or on is simply not taken.
      return state.queue.some((s) => s.kind === "write")
        ? { ...state, status: "conflict", newest: event.newest }
        : { ...state, ...pageNow(event.newest), queue: [], status: "saved" };
    case "heard":
      return state.status === "saved" && event.page.revision > state.base
        ? { ...state, ...pageNow(event.page), withdrawn: [] }
        : state;
    case "kept":
      return Boolean(state.unkept) === !event.room ? state : { ...state, unkept: !event.room };
    case "keepMine":
      return settled(state, (newest) => [
        {
          kind: "write",
          plan: shownPlan(state),
          reason: `kept over version ${newest.revision}`,
          key: event.key,
          sent: false,
        },
      ]);
    case "takeTheirs":
      // Hers goes into the history first, so that undo has it.
      return settled(state, (newest) => [
        { kind: "write", plan: shownPlan(state), reason: "kept aside", key: event.keys[0], sent: false },
        { kind: "return", to: newest.revision, plan: newest.plan, key: event.keys[1], sent: false },
      ]);
  }
}

/** A page as somebody else left it. */
const pageNow = (page: PageView) => ({ page, trail: trailOf(page), base: page.revision });

function waiting(state: PlanState, queue: readonly Step[]): PlanState {
  return {
    ...state,
    queue,
    status: state.status === "saving" || state.status === "conflict" ? state.status : "waiting",
  };
}

/** A change joins the last one when both are of one kind and that has not been sent: typing is one step, not ten. */
function changed(state: PlanState, { plan, reason, key }: { plan: PlanDoc; reason: string; key: string }): PlanState {
  // What was refused would be refused again: the new plan takes its place.
  const queue = state.status === "refused" ? [] : state.queue;
  const last = queue.at(-1);
  const joins = last?.kind === "write" && !last.sent && last.reason === reason;
  const step: Step = { kind: "write", plan, reason, key: joins ? last.key : key, sent: false };
  return { ...waiting(state, [...(joins ? queue.slice(0, -1) : queue), step]), withdrawn: [] };
}

function undone(state: PlanState, key: string): PlanState {
  const last = state.queue.at(-1);
  if (last?.kind === "write" && (!last.sent || state.status === "refused")) {
    const queue = state.queue.slice(0, -1);
    const status = queue.length ? state.status : "saved";
    return { ...state, queue, status, withdrawn: [...state.withdrawn, { ...last, sent: false }] };
  }
  // A step on that has not been sent is simply not taken.
  if (last?.kind === "redo" && !last.sent) return without(state);
  if (!ahead(state).now.step) return state;
  return waiting(state, [...state.queue, { kind: "undo", key, sent: false }]);
}

function redone(state: PlanState, key: string): PlanState {
  const back = state.withdrawn.at(-1);
  if (back) return { ...waiting(state, [...state.queue, back]), withdrawn: state.withdrawn.slice(0, -1) };
  const last = state.queue.at(-1);
  if (last?.kind === "undo" && !last.sent) return without(state);
  if (!ahead(state).after.length && (state.queue.length > 0 || !state.page.redo)) return state;
  return waiting(state, [...state.queue, { kind: "redo", key, sent: false }]);
}

/** The state without its last step. */
function without(state: PlanState): PlanState {
  const queue = state.queue.slice(0, -1);
  return { ...state, queue, status: queue.length ? state.status : "saved" };
}

/** A conflict settled: the page as somebody else left it, and what is to be done on top of that. */
function settled(state: PlanState, queue: (newest: PageView) => readonly Step[]): PlanState {
  const { newest, ...rest } = state;
  if (!newest) return state;
  return { ...rest, ...pageNow(newest), queue: queue(newest), withdrawn: [], status: "waiting" };
}
