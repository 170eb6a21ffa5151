import { expect, test } from "vitest";
import type { CutSheetDoc, PlanDoc } from "@/api/client";
import { asTicked, finished, howOften, lineOf, partsOf, stepAt, thingOf, withDone, withWrong } from "./model";

/** A strip off the top, then three squares off the strip. */
const sheet: CutSheetDoc = {
  item: "dots",
  copy: 1,
  w: 12,
  h: 12,
  spoiled: [],
  cuts: [
    { part: "whole", along: "x", at: 2, makes: ["A", "B"] },
    { part: "A", along: "y", at: 2, makes: ["C", "D"] },
    { part: "D", along: "y", at: 2, makes: ["E", "F"] },
  ],
  pieces: [
    { name: "m1/0", part: "C", x: 0, y: 0, w: 2, h: 2, turned: false },
    { name: "m2/0", part: "E", x: 2, y: 0, w: 2, h: 2, turned: false },
  ],
  rests: [{ name: "B", part: "B", x: 0, y: 2, w: 12, h: 10, turned: false }],
  done: 0,
  wrong: [],
  steps: [
    { first: 0, times: 1, setting: 2, from_far_edge: false, along: "x", beyond_reach: false, done: [], text: "" },
    {
      first: 1,
      times: 2,
      setting: 2,
      from_far_edge: false,
      along: "y",
      beyond_reach: false,
      done: ["m1/0", "m2/0"],
      text: "",
    },
  ],
  used: 0.1,
};
const plan = { format: "metrosk-plan/2", unit: "in" } as unknown as PlanDoc;
const begun = (p: PlanDoc) => p.cut?.begun ?? [];

test("parts lie where the cuts put them", () => {
  expect(partsOf(sheet).get("F")).toEqual({ x: 4, y: 0, w: 8, h: 2 });
  expect(lineOf(sheet, partsOf(sheet), 2)).toEqual({ x1: 4, y1: 0, x2: 4, y2: 2 });
});

test("ticks keep the sheet in the plan, and taking all back lets it go", () => {
  const one = withDone(plan, sheet, 1);
  expect(begun(one).map((s) => s.done)).toEqual([1]);
  expect(begun(one)[0]).not.toHaveProperty("steps");
  expect(begun(withDone(one, sheet, 0))).toEqual([]);
  expect(begun(withDone(plan, sheet, 9)).map((s) => s.done)).toEqual([3]);
});

test("a tick is seen before the server has answered", () => {
  const one = withDone(plan, sheet, 1);
  expect(asTicked([sheet], one).map((s) => s.done)).toEqual([1]);
  expect(asTicked([{ ...sheet, done: 2 }], plan).map((s) => s.done)).toEqual([0]);
});

test("the step in hand and what is finished follow the ticks", () => {
  expect([0, 1, 2, 3].map((done) => stepAt({ ...sheet, done }))).toEqual([0, 1, 1, 2]);
  expect(finished({ ...sheet, done: 3 })).toEqual(["m2/0", "m1/0"]);
});

test("a piece cut wrong is told once, and forgotten when its cut is taken back", () => {
  const done = { ...sheet, done: 3 };
  const wrong = withWrong(plan, done, "m2/0");
  expect(begun(wrong)[0]?.wrong).toEqual(["m2/0"]);
  expect(begun(withWrong(wrong, { ...done, wrong: ["m2/0"] }, "m2/0"))[0]?.wrong).toEqual(["m2/0"]);
  expect(begun(withDone(plan, { ...done, wrong: ["m2/0"] }, 2))[0]?.wrong).toEqual([]);
});

test("rests are named by what they come from", () => {
  expect(thingOf({ ...sheet, item: "dots#1B" })).toBe("dots");
  expect([1, 3, 9].map(howOften)).toEqual(["once", "three times", "9 times"]);
});
