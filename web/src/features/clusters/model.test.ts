import { expect, test } from "vitest";
import type { FitDoc, LayoutDoc, PageFindingDoc, PlanDoc } from "@/api/client";
import {
  CHECKS,
  inLine,
  isOff,
  isPassed,
  layoutWith,
  letterOf,
  piecesOf,
  placeOf,
  shuffled,
  takenByItem,
  WHY,
  withCheck,
  withCure,
  withoutPiece,
  withPassed,
  withPiece,
  withPieceChanged,
  withPieceMoved,
} from "./model";

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
const near: PageFindingDoc = {
  what: "near",
  key: "near left p1 t1",
  text: "",
  box: null,
  edge: "left",
  blocks: ["p1", "t1"],
  cures: [],
};
const plan = { format: "metrosk-plan/2", unit: "in" } as unknown as PlanDoc;
const k1 = { of: "k1", part: 0 };

test("findings are lettered on past Z, and every check has its reason", () => {
  expect([0, 25, 26, 27].map(letterOf)).toEqual(["A", "Z", "AA", "AB"]);
  expect(CHECKS.filter(([name]) => !WHY[name])).toEqual([]);
});

test("a near miss is seen between both edges, over both blocks", () => {
  expect(placeOf(near, layout)).toEqual({ x: 1, y: 1, w: 0.0625, h: 5 });
  expect(placeOf({ ...near, edge: null, blocks: ["t1"] }, layout)).toEqual({ x: 1.0625, y: 5, w: 6, h: 1 });
});

test("put in line, the second block is held to the first one's edge", () => {
  expect(inLine(fit, layout, near)?.pins).toEqual([
    { block: "t1", edge: "left", at: 0, to: { block: "p1", edge: "left" } },
  ]);
  expect(inLine(fit, layout, { ...near, blocks: ["p1", "gone"] })).toBeUndefined();
});

test("a cure pins the edges that it moves, and no others", () => {
  const cure = { block: "t1", box: { x: 1.0625, y: 5, w: 7, h: 1 } };
  expect(withCure(fit, layout, cure)?.pins).toEqual([{ block: "t1", edge: "right", at: 8.0625 }]);
  expect(withCure(fit, layout, { ...cure, block: "gone" })).toBeUndefined();
  expect(layoutWith(layout, cure).blocks[1]?.box.w).toBe(7);
  expect(layoutWith(layout, { block: null, box: cure.box }).blocks).toHaveLength(3);
});

test("pieces are laid on top, moved within their stack, changed and taken out", () => {
  const two = withPiece(withPiece(plan, k1, "leaf"), k1, "tag");
  expect(piecesOf(two, k1).map((p) => p.item)).toEqual(["leaf", "tag"]);
  expect(takenByItem(two)).toEqual(
    new Map([
      ["leaf", 1],
      ["tag", 1],
    ]),
  );
  const other = withPieceMoved(two, k1, 0, 1);
  expect(other && piecesOf(other, k1).map((p) => p.item)).toEqual(["tag", "leaf"]);
  expect(withPieceMoved(two, k1, 1, 1)).toBeUndefined();
  const held = withPieceChanged(two, k1, 0, { at: { x: 3, y: 4 }, lift: "thin-foam" });
  expect(piecesOf(held, k1)[0]).toEqual({ item: "leaf", at: { x: 3, y: 4 }, lift: "thin-foam" });
  expect(piecesOf(withPieceChanged(held, k1, 0, { at: null }), k1)[0]).toEqual({ item: "leaf", lift: "thin-foam" });
  expect(piecesOf(withoutPiece(two, k1, 0), k1)).toEqual([{ item: "tag" }]);
  expect(shuffled(two, [k1]).clusters?.clusters?.k1?.["0"]?.seed).toBe(1);
});

test("a check is switched off and on, a finding is let be", () => {
  const off = withCheck(plan, "triangle", false);
  expect(isOff(off.clusters, "triangle")).toBe(true);
  expect(isOff(withCheck(off, "triangle", true).clusters, "triangle")).toBe(false);
  expect(isPassed(withPassed(plan, near.key), near.key)).toBe(true);
  expect(isPassed(plan, near.key)).toBe(false);
});
