import { expect, test } from "vitest";
import type { BuildStepDoc, PlanDoc } from "@/api/client";
import { clockText, left, readyNow } from "./drying";

const step = (id: string, dries: number, after: string[] = []): BuildStepDoc => ({
  id,
  text: id,
  hint: "",
  minutes: 5,
  dries,
  from: 0,
  to: 5,
  fixes: [],
  on: [],
  no_return: null,
  caution: null,
  before: [],
  after: after.map((s) => ({ step: s, why: "it is wet", lag: 20 })),
});

const plan = (done: string[]) => ({ build: { done } }) as unknown as PlanDoc;

test("what has to be dry is not ready while its clock runs", () => {
  const steps = [step("paint", 20), step("stamp", 0, ["paint"]), step("mat", 0)];
  const minute = 60_000;
  const ready = (done: string[], clocks: Record<string, number>, now: number) =>
    readyNow(plan(done), steps, clocks, now).map((s) => s.id);
  expect(ready([], {}, 0)).toEqual(["paint", "mat"]);
  expect(ready(["paint"], { paint: 0 }, 19 * minute)).toEqual(["mat"]);
  expect(ready(["paint"], { paint: 0 }, 20 * minute)).toEqual(["stamp", "mat"]);
  expect(ready(["paint"], {}, 0)).toEqual(["stamp", "mat"]);
});

test("a clock counts down to nothing", () => {
  expect(left(step("paint", 20), 1_000, 1_000)).toBe(1_200_000);
  expect([725_000, 3_720_000, -5].map(clockText)).toEqual(["12:05", "1:02:00", "0:00"]);
});
