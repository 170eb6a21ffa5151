import { describe, expect, it } from "vitest";
import type { BuildStepDoc, PlanDoc } from "@/api/client";
import { isDone, nextStep, timeText, withDone, within, withMoved, withoutOrder, withTechnique } from "./model";

const plan = { format: "metrosk-plan/2", unit: "in", build: { school: "glue-as-you-go" } } as unknown as PlanDoc;
const step = (id: string, from: number, to: number): BuildStepDoc => ({
  id,
  text: id,
  hint: "",
  fixes: [],
  on: [],
  minutes: to - from,
  dries: 0,
  no_return: null,
  caution: null,
  from,
  to,
  after: [],
  before: [],
});
const steps = [step("cut", 0, 10), step("lay out", 10, 20), step("glue p1", 20, 23)];

describe("the order of making", () => {
  it("is ticked step by step, and a tick is taken back", () => {
    const once = withDone(plan, "cut", true);
    expect(isDone(once, "cut")).toBe(true);
    expect(nextStep(once, steps)?.id).toBe("lay out");
    expect(withDone(once, "cut", false).build?.done).toEqual([]);
    expect(once.build?.school).toBe("glue-as-you-go");
  });
  it("is changed by one place at a time, and given back", () => {
    const moved = withMoved(plan, steps, "glue p1", -1);
    expect(moved?.build?.order).toEqual(["cut", "glue p1", "lay out"]);
    expect(withMoved(plan, steps, "cut", -1)).toBeUndefined();
    expect(moved && withoutOrder(moved).build).toEqual({ school: "glue-as-you-go" });
  });
  it("takes further work in", () => {
    const gesso = withTechnique(plan, "gesso", true);
    expect(gesso.build?.techniques).toEqual(["gesso"]);
    expect(withTechnique(gesso, "gesso", false).build?.techniques).toEqual([]);
  });
  it("says how long it takes, and how far an evening goes", () => {
    expect([timeText(9), timeText(60), timeText(147)]).toEqual(["9 min", "1 h", "2 h 27 min"]);
    expect(within(steps, 20)).toBe(2);
  });
});
