import { describe, expect, it } from "vitest";
import type { PageView, PlanDoc } from "@/api/client";
import { opened, type PlanEvent, type PlanState, reduce, shownPlan, steps } from "./planState";

const plan = (name: string) => ({ format: "metrosk-plan/1", fit: { name } }) as unknown as PlanDoc;
const first = plan("first");
const page = (revision: number, more: Partial<PageView> = {}) =>
  ({ id: "page", name: "Kites", revision, plan: first, undo: null, redo: null, ...more }) as PageView;

const run = (state: PlanState, ...events: PlanEvent[]) => events.reduce(reduce, state);
const changed = (p: PlanDoc, reason: string, key: string): PlanEvent => ({ type: "changed", plan: p, reason, key });

describe("a plan being edited", () => {
  it("joins changes of one kind until they are sent, and never under a key that was sent", () => {
    const [a, b, c] = [plan("a"), plan("b"), plan("c")];
    let state = run(opened(page(1), undefined), changed(a, "margin", "k1"), changed(b, "margin", "k2"));
    expect(state.queue.map((s) => s.key)).toEqual(["k1"]);
    expect(shownPlan(state)).toBe(b);
    state = run(state, { type: "sending" }, changed(c, "margin", "k3"));
    expect(state.queue.map((s) => s.key)).toEqual(["k1", "k3"]);
    state = run(state, { type: "saved", key: "k1", page: page(2, { plan: b }) });
    expect([state.status, state.base, shownPlan(state)]).toEqual(["waiting", 2, c]);
    state = run(state, { type: "sending" }, { type: "saved", key: "k3", page: page(3, { plan: c }) });
    expect([state.status, state.queue.length]).toEqual(["saved", 0]);
  });

  it("is the same object when nothing changed", () => {
    const state = opened(page(1), undefined);
    expect(reduce(state, changed(first, "nothing", "k"))).toBe(state);
    expect(reduce(state, { type: "undo", key: "k" })).toBe(state);
    expect(reduce(state, { type: "redo", key: "k" })).toBe(state);
  });

  it("takes unsent changes back by itself, and asks the server for the others", () => {
    const a = plan("a");
    let state = run(opened(page(5, { undo: "margin" }), undefined), changed(a, "step", "k1"), {
      type: "undo",
      key: "k2",
    });
    expect([state.status, state.queue.length, shownPlan(state)]).toEqual(["saved", 0, first]);
    expect(steps(state)).toEqual({ undo: "margin", redo: "step" });
    state = run(state, { type: "redo", key: "k3" });
    expect(shownPlan(state)).toBe(a);
    state = run(state, { type: "undo", key: "k4" }, { type: "undo", key: "k5" });
    expect(state.queue).toEqual([{ kind: "undo", key: "k5", sent: false }]);
  });

  it("loses nothing without a connection, nor on a reload", () => {
    const a = plan("a");
    const offline = run(opened(page(1), undefined), changed(a, "step", "k1"), { type: "sending" }, { type: "offline" });
    expect([offline.status, shownPlan(offline)]).toEqual(["offline", a]);
    const again = opened(page(1), { base: offline.base, queue: offline.queue });
    expect([again.status, again.queue[0]?.key, shownPlan(again)]).toEqual(["waiting", "k1", a]);
  });

  it("shows undo and redo without a connection, as far back as plans are known", () => {
    const [zero, a, b] = [plan("zero"), plan("a"), plan("b")];
    const start = page(5, { undo: "margin", undo_plan: zero });
    // A change that may have reached the server is not taken back by itself: the step back waits behind it, and shows.
    let state = run(opened(start, undefined), changed(a, "step", "k1"), { type: "sending" }, { type: "offline" });
    state = run(state, { type: "undo", key: "k2" });
    expect([state.queue.length, shownPlan(state), steps(state)]).toEqual([2, first, { undo: "margin", redo: "step" }]);
    state = run(state, { type: "undo", key: "k3" });
    expect([shownPlan(state), steps(state).undo]).toEqual([zero, undefined]);
    expect(reduce(state, { type: "undo", key: "k4" })).toBe(state);
    // A step on takes back the step back that was not sent.
    state = run(state, { type: "redo", key: "k5" });
    expect([state.queue.map((s) => s.key), shownPlan(state)]).toEqual([["k1", "k2"], first]);
    state = run(state, changed(b, "other", "k6"));
    expect([shownPlan(state), steps(state)]).toEqual([b, { undo: "other", redo: undefined }]);
    // As the answers come in, nothing jumps.
    state = run(state, { type: "saved", key: "k1", page: page(6, { plan: a, undo: "step", undo_plan: first }) });
    expect(shownPlan(state)).toBe(b);
    const back = page(7, { plan: first, undo: "margin", undo_plan: zero, redo: "step", redo_plan: a });
    state = run(state, { type: "saved", key: "k2", page: back });
    expect(shownPlan(state)).toBe(b);
    state = run(state, { type: "saved", key: "k6", page: page(8, { plan: b, undo: "other", undo_plan: first }) });
    expect([state.status, shownPlan(state), steps(state).undo]).toEqual(["saved", b, "other"]);
    // The plan before the last is still known from before.
    state = run(state, { type: "offline" }, { type: "undo", key: "k7" }, { type: "undo", key: "k8" });
    expect(shownPlan(state)).toBe(zero);
  });

  it("says when the browser has no room for what waits, once", () => {
    const state = reduce(opened(page(1), undefined), { type: "kept", room: false });
    expect(state.unkept).toBe(true);
    expect(reduce(state, { type: "kept", room: false })).toBe(state);
    expect(reduce(state, { type: "kept", room: true }).unkept).toBe(false);
  });

  it("starts from the revision that the steps were made on, so that a quicker one is noticed", () => {
    const draft = { base: 1, queue: [{ kind: "write" as const, plan: plan("a"), reason: "r", key: "k", sent: true }] };
    expect(opened(page(4), draft).base).toBe(1);
  });

  it("keeps hers over the other", () => {
    const [mine, theirs] = [plan("mine"), plan("theirs")];
    const newest = page(2, { plan: theirs });
    const clash = run(
      opened(page(1), undefined),
      changed(mine, "mine", "k1"),
      { type: "sending" },
      { type: "conflict", newest },
    );
    expect([clash.status, shownPlan(clash)]).toEqual(["conflict", mine]);
    const kept = run(clash, { type: "keepMine", key: "k2" });
    expect([kept.base, shownPlan(kept), kept.queue.length]).toEqual([2, mine, 1]);
  });

  it("takes the other, with hers in the history", () => {
    const [mine, theirs] = [plan("mine"), plan("theirs")];
    const newest = page(2, { plan: theirs });
    const clash = run(opened(page(1), undefined), changed(mine, "mine", "k1"), { type: "conflict", newest });
    const taken = run(clash, { type: "takeTheirs", keys: ["k2", "k3"] });
    expect(taken.queue.map((s) => s.kind)).toEqual(["write", "return"]);
    expect(shownPlan(taken)).toBe(theirs);
  });

  it("asks no question when only a step back came too late", () => {
    const newest = page(7, { plan: plan("theirs") });
    const state = run(
      opened(page(6, { undo: "x" }), undefined),
      { type: "undo", key: "k" },
      { type: "conflict", newest },
    );
    expect([state.status, state.base]).toEqual(["saved", 7]);
  });

  it("hears of what others did only while nothing of hers waits", () => {
    const heard = page(3, { plan: plan("theirs") });
    expect(reduce(opened(page(2), undefined), { type: "heard", page: heard }).base).toBe(3);
    const busy = run(opened(page(2), undefined), changed(plan("mine"), "mine", "k"));
    expect(reduce(busy, { type: "heard", page: heard })).toBe(busy);
  });

  it("lets a new change take the place of one that was refused", () => {
    const state = run(
      opened(page(1), undefined),
      changed(plan("bad"), "bad", "k1"),
      { type: "sending" },
      { type: "refused", why: "no" },
    );
    const next = run(state, changed(plan("good"), "good", "k2"));
    expect([next.status, next.queue.map((s) => s.key)]).toEqual(["waiting", ["k2"]]);
  });
});
