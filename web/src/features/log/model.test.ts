import { expect, test } from "vitest";
import type { PlanDoc } from "@/api/client";
import { entriesOf, entryText, leftOut, stepEntry, withEntry, withLeftOut, withLog, withoutEntry } from "./model";

const plan = { format: "metrosk-plan/2", unit: "in" } as unknown as PlanDoc;
const at = new Date("2026-11-26T20:31:00Z");

test("an entry is written, written again and taken out", () => {
  const once = withEntry(plan, stepEntry("glue p1", "Glue 1 down", at));
  expect(entriesOf(once)).toEqual([
    { id: "step glue p1", at: "2026-11-26T20:31:00.000Z", kind: "step", text: "Glue 1 down" },
  ]);
  const again = withEntry(once, stepEntry("glue p1", "Glue 1 down again", at));
  expect(entriesOf(again).map((e) => e.text)).toEqual(["Glue 1 down again"]);
  expect(entriesOf(withoutEntry(again, "step glue p1"))).toEqual([]);
});

test("what went wrong is said before her words", () => {
  const wrong = { id: "e", at: at.toISOString(), kind: "wrong", wrong: "cut-short" };
  expect(entryText(wrong)).toBe("Cut short.");
  expect(entryText({ ...wrong, text: "By a hair." })).toBe("Cut short. By a hair.");
  expect(entryText({ ...wrong, kind: "note", text: " Stitched. " })).toBe("Stitched.");
});

test("names and the place stay out unless she says otherwise", () => {
  expect(leftOut(plan)).toEqual(["names", "place"]);
  expect(leftOut(withLeftOut(plan, "names", false))).toEqual(["place"]);
  expect(leftOut(withLeftOut(plan, "date", true))).toEqual(["names", "place", "date"]);
  expect(withLog(withLog(plan, { story: "Cold." }), { story: null }).log).toEqual({});
});
