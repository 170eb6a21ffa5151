import { expect, test } from "vitest";
import type { CureDoc, FindingDoc, FitDoc, LayoutDoc } from "@/api/client";
import { inLine, keyOf, letterOf, placeOf, withCure } from "./model";

const block = (id: string, x: number, y: number, w: number, h: number) => ({
  id,
  from: [id],
  kind: "photo",
  page: 0,
  box: { x, y, w, h },
});
const layout = {
  format: "metrosk-layout/1",
  unit: "in",
  canvas: { page: { w: 12, h: 12 }, pages: 1 },
  blocks: [block("p1", 1, 1, 4, 3), block("t1", 1.0625, 5, 6, 1)],
} as unknown as LayoutDoc;
const fit = { format: "metrosk-fit/1", unit: "in", pins: [] } as unknown as FitDoc;
const near: FindingDoc = { what: "near", text: "", edge: "left", blocks: ["p1", "t1"], off: 0.0625 };

test("findings are lettered on past Z", () => {
  expect([0, 25, 26, 27].map(letterOf)).toEqual(["A", "Z", "AA", "AB"]);
});

test("a near miss is seen between both edges, over both blocks", () => {
  expect(placeOf(near, layout)).toEqual({ x: 1, y: 1, w: 0.0625, h: 5 });
  expect(keyOf(near)).toBe("near left p1 t1");
});

test("put in line, the second block is held to the first one's edge", () => {
  expect(inLine(fit, layout, near)?.pins).toEqual([
    { block: "t1", edge: "left", at: 0, to: { block: "p1", edge: "left" } },
  ]);
  expect(inLine(fit, layout, { ...near, blocks: ["p1", "gone"] })).toBeUndefined();
});

test("a cure pins the edges that it moves, and no others", () => {
  const cure: CureDoc = { text: "", block: "t1", box: { x: 1.0625, y: 5, w: 7, h: 1 } };
  expect(withCure(fit, layout, cure)?.pins).toEqual([{ block: "t1", edge: "right", at: 8.0625 }]);
  expect(withCure(fit, layout, { ...cure, block: "gone" })).toBeUndefined();
});
