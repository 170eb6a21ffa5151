import { describe, expect, it } from "vitest";
import type { FitDoc, PageView, PlanDoc } from "@/api/client";
import { between } from "./patch";
import { type Draft, opened, type PlanEvent, type PlanState, reduce, shownPlan, steps } from "./planState";

/** A plan that differs from others by its step. */
const plan = (snap: number) =>
  ({ format: "metrosk-plan/2", unit: "in", sketch: { sketch: { name: "Two" } }, fit: { snap } }) as unknown as PlanDoc;
const [zero, first, a, b, c] = [plan(0), plan(1), plan(2), plan(3), plan(4)];
const page = (revision: number, more: Partial<PageView> = {}) =>
  ({ id: "page", name: "Kites", revision, plan: first, trails: {}, ...more }) as PageView;
/** A change that undo or redo leads to, as the server tells it. */
const change = (revision: number, reason: string, from: PlanDoc, to: PlanDoc) => ({
  revision,
  reason,
  patch: between(from, to),
  inverse: between(to, from),
});
const trails = (undo: ReturnType<typeof change>[], redo: ReturnType<typeof change>[] = []) =>
  ({ trails: { fit: { undo, redo } } }) as unknown as Partial<PageView>;

const run = (state: PlanState, ...events: PlanEvent[]) => events.reduce(reduce, state);
const changed = (to: PlanDoc, reason: string, key: string, station = "fit"): PlanEvent => ({
  type: "changed",
  station,
  plan: to,
  reason,
  key,
});
const undo = (key: string, station = "fit"): PlanEvent => ({ type: "undo", station, key });
const redo = (key: string, station = "fit"): PlanEvent => ({ type: "redo", station, key });
const at = (state: PlanState) => steps(state, "fit");
const snap = (state: PlanState) => shownPlan(state).fit.snap;

describe("a plan being edited", () => {
  it("joins changes of one kind until they are sent, and never under a key that was sent", () => {
    let state = run(opened(page(1), undefined), changed(a, "margin", "k1"), changed(b, "margin", "k2"));
    expect(state.queue.map((s) => s.key)).toEqual(["k1"]);
    expect(state.queue[0]).toMatchObject({ patch: { fit: { snap: 3 } }, inverse: { fit: { snap: 1 } } });
    expect(snap(state)).toBe(3);
    state = run(state, { type: "sending" }, changed(c, "margin", "k3"));
    expect(state.queue.map((s) => s.key)).toEqual(["k1", "k3"]);
    state = run(state, { type: "saved", key: "k1", page: page(2, { plan: b }) });
    expect([state.status, state.base, snap(state)]).toEqual(["waiting", 2, 4]);
    state = run(state, { type: "sending" }, { type: "saved", key: "k3", page: page(3, { plan: c }) });
    expect([state.status, state.queue.length]).toEqual(["saved", 0]);
  });

  it("is the same object when nothing changed", () => {
    const state = opened(page(1), undefined);
    expect(reduce(state, changed({ ...first, fit: { ...first.fit } }, "nothing", "k"))).toBe(state);
    expect(reduce(state, undo("k"))).toBe(state);
    expect(reduce(state, redo("k"))).toBe(state);
  });

  it("takes unsent changes back by itself, and asks the server for the others", () => {
    const start = page(5, trails([change(5, "margin", zero, first)]));
    let state = run(opened(start, undefined), changed(a, "step", "k1"), undo("k2"));
    expect([state.status, state.queue.length, shownPlan(state)]).toEqual(["saved", 0, first]);
    expect(at(state)).toEqual({ undo: "margin", redo: "step" });
    state = run(state, redo("k3"));
    expect(snap(state)).toBe(2);
    state = run(state, undo("k4"), undo("k5"));
    expect(state.queue).toEqual([{ kind: "undo", station: "fit", key: "k5", sent: false }]);
    expect(snap(state)).toBe(0);
  });

  it("loses nothing without a connection, nor on a reload", () => {
    const offline = run(opened(page(1), undefined), changed(a, "step", "k1"), { type: "sending" }, { type: "offline" });
    expect([offline.status, snap(offline)]).toEqual(["offline", 2]);
    const again = opened(page(1), { base: offline.base, queue: offline.queue });
    expect([again.status, again.queue[0]?.key, snap(again)]).toEqual(["waiting", "k1", 2]);
  });

  it("brings up what an earlier version kept in the browser", () => {
    const fit = { format: "metrosk-fit/1", unit: "in", sketch: { name: "Two" }, snap: 2 } as unknown as FitDoc;
    const queue = [
      { kind: "write", plan: { format: "metrosk-plan/1", fit }, reason: "step", key: "k1", sent: true },
      { kind: "undo", key: "k2", sent: false },
    ];
    const state = opened(page(4), { base: 1, queue } as unknown as Draft);
    expect([state.base, state.queue[0]]).toMatchObject([1, { station: "fit", patch: { fit: { snap: 2 } }, key: "k1" }]);
    expect(shownPlan(state)).toEqual(first);
  });

  it("shows undo and redo without a connection, as far back as changes are known", () => {
    const start = page(5, trails([change(5, "margin", zero, first)]));
    // A change that may have reached the server is not taken back by itself: the step back waits behind it, and shows.
    let state = run(opened(start, undefined), changed(a, "step", "k1"), { type: "sending" }, { type: "offline" });
    state = run(state, undo("k2"));
    expect([state.queue.length, snap(state), at(state)]).toEqual([2, 1, { undo: "margin", redo: "step" }]);
    state = run(state, undo("k3"));
    expect([snap(state), at(state).undo]).toEqual([0, undefined]);
    expect(reduce(state, undo("k4"))).toBe(state);
    // A step on takes back the step back that was not sent.
    state = run(state, redo("k5"));
    expect([state.queue.map((s) => s.key), snap(state)]).toEqual([["k1", "k2"], 1]);
    state = run(state, changed(b, "other", "k6"));
    expect([snap(state), at(state)]).toEqual([3, { undo: "other", redo: undefined }]);
    // As the answers come in, nothing jumps.
    const [margin, step] = [change(5, "margin", zero, first), change(6, "step", first, a)];
    state = run(state, { type: "saved", key: "k1", page: page(6, { plan: a, ...trails([margin, step]) }) });
    expect(snap(state)).toBe(3);
    state = run(state, { type: "saved", key: "k2", page: page(7, { ...trails([margin], [step]) }) });
    expect(snap(state)).toBe(3);
    const other = change(8, "other", first, b);
    state = run(state, { type: "saved", key: "k6", page: page(8, { plan: b, ...trails([margin, other]) }) });
    expect([state.status, snap(state), at(state).undo]).toEqual(["saved", 3, "other"]);
    state = run(state, { type: "offline" }, undo("k7"), undo("k8"));
    expect(snap(state)).toBe(0);
  });

  it("undoes at each station what was done there", () => {
    const words = { ...first, words: { title: "Low sun" } } as unknown as PlanDoc;
    let state = run(opened(page(1), undefined), changed(a, "step", "k1"), { type: "sending" }, { type: "offline" });
    state = run(state, changed({ ...words, fit: a.fit }, "title", "k2", "words"));
    state = run(state, undo("k3"));
    expect(shownPlan(state)).toEqual(words);
    expect([at(state), steps(state, "words")]).toEqual([
      { undo: undefined, redo: "step" },
      { undo: "title", redo: undefined },
    ]);
    state = run(state, undo("k4", "words"));
    expect(shownPlan(state)).toEqual(first);
  });

  it("says why a step back was not taken, until the next one is", () => {
    const start = page(5, trails([change(5, "margin", zero, first)]));
    let state = run(opened(start, undefined), undo("k1"), { type: "sending" });
    state = run(state, { type: "nothing", key: "k1", why: "changed since" });
    expect([state.status, state.notTaken, snap(state)]).toEqual(["saved", "changed since", 1]);
    expect(run(state, changed(a, "step", "k2")).notTaken).toBeUndefined();
  });

  it("says when the browser has no room for what waits, once", () => {
    const state = reduce(opened(page(1), undefined), { type: "kept", room: false });
    expect(state.unkept).toBe(true);
    expect(reduce(state, { type: "kept", room: false })).toBe(state);
    expect(reduce(state, { type: "kept", room: true }).unkept).toBe(false);
  });

  it("starts from the revision that the steps were made on, so that a quicker one is noticed", () => {
    const offline = run(opened(page(1), undefined), changed(a, "r", "k"), { type: "sending" });
    expect(opened(page(4), { base: offline.base, queue: offline.queue }).base).toBe(1);
  });

  it("keeps hers over the other, and what the other did elsewhere", () => {
    const theirs = { ...b, papers: { note: "dots" } } as unknown as PlanDoc;
    const clash = run(
      opened(page(1), undefined),
      changed(a, "mine", "k1"),
      { type: "sending" },
      { type: "conflict", newest: page(2, { plan: theirs }) },
    );
    expect([clash.status, snap(clash)]).toEqual(["conflict", 2]);
    const kept = run(clash, { type: "keepMine", key: "k2" });
    expect([kept.base, kept.queue.length]).toEqual([2, 1]);
    expect(shownPlan(kept)).toEqual({ ...a, papers: { note: "dots" } });
  });

  it("takes the other, with hers in the history", () => {
    const clash = run(opened(page(1), undefined), changed(a, "mine", "k1"), {
      type: "conflict",
      newest: page(2, { plan: b }),
    });
    const taken = run(clash, { type: "takeTheirs", keys: ["k2", "k3"] });
    expect(taken.queue.map((s) => s.kind)).toEqual(["write", "return"]);
    expect(shownPlan(taken)).toEqual(b);
  });

  it("asks no question when only a step back came too late", () => {
    const start = page(6, trails([change(6, "x", zero, first)]));
    const newest = page(7, { plan: b });
    const state = run(opened(start, undefined), undo("k"), { type: "conflict", newest });
    expect([state.status, state.base, snap(state)]).toEqual(["saved", 7, 3]);
  });

  it("hears of what others did only while nothing of hers waits", () => {
    const heard = page(3, { plan: b });
    expect(reduce(opened(page(2), undefined), { type: "heard", page: heard }).base).toBe(3);
    const busy = run(opened(page(2), undefined), changed(a, "mine", "k"));
    expect(reduce(busy, { type: "heard", page: heard })).toBe(busy);
  });

  it("lets a new change take the place of one that was refused", () => {
    const state = run(
      opened(page(1), undefined),
      changed(a, "bad", "k1"),
      { type: "sending" },
      { type: "refused", why: "no" },
    );
    const next = run(state, changed(b, "good", "k2"));
    expect([next.status, next.queue.map((s) => s.key)]).toEqual(["waiting", ["k2"]]);
  });
});
