import { describe, expect, it } from "vitest";
import { between, isEmpty, patched } from "./patch";

describe("patches of a plan", () => {
  it("lead from one document to another, naming only what differs", () => {
    const from = { fit: { snap: 0.125, pins: [] as unknown[] }, sketch: { turn: 90 }, unit: "in" };
    const to = { fit: { snap: 0.25, pins: [] }, sketch: {}, unit: "in", papers: { note: "dots" } };
    const patch = between(from, to);
    expect(patch).toEqual({ fit: { snap: 0.25 }, sketch: { turn: null }, papers: { note: "dots" } });
    expect(patched(from, patch)).toEqual(to);
    expect(patched(to, between(to, from))).toEqual(from);
  });

  it("replace lists, and what becomes another kind of thing", () => {
    const from: Record<string, unknown> = { photos: { count: 6 } };
    const to = { photos: [{ id: "f1", w: 6, h: 4 }] };
    expect(patched(from, between(from, to))).toEqual(to);
    expect(patched<Record<string, unknown>>(to, between(to, from))).toEqual(from);
  });

  it("leave what they don't change as it is", () => {
    const plan = { fit: { snap: 0.125 }, sketch: { sketch: { blocks: [1, 2] } } };
    expect(patched(plan, { fit: { snap: 0.125 } })).toBe(plan);
    const next = patched(plan, { fit: { snap: 0.25 } });
    expect(next.sketch).toBe(plan.sketch);
    expect(isEmpty(between(plan, { ...plan, fit: { snap: 0.125 } }))).toBe(true);
  });
});
