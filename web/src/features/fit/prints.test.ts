import { describe, expect, it } from "vitest";
import { withPhotos, withSize } from "./model";
import {
  faceSquares,
  isMarked,
  printsOf,
  startPrints,
  withFace,
  withFocal,
  withoutPrints,
  withPhotoRule,
  withPrintLess,
  withPrintMore,
  withPrintSize,
  withPrintTurned,
} from "./prints";
import { fitOf } from "./testing";

const fit = fitOf([
  { id: "p1", kind: "photo", box: { x: 1, y: 1, w: 4, h: 6 } },
  { id: "p2", kind: "photo", box: { x: 6, y: 1, w: 5, h: 3 } },
]);

describe("prints", () => {
  it("start as usual prints of about the slots' shapes", () => {
    const listed = startPrints(fit);
    expect(printsOf(listed)).toEqual([
      { id: "f1", w: 4, h: 6 },
      { id: "f2", w: 6, h: 4 },
    ]);
    expect(printsOf(startPrints(withPhotos(fit, 3)))).toHaveLength(3);
    expect(printsOf(fit)).toBeUndefined();
  });

  it("go back to a count, or to nothing said when there are as many as drawn", () => {
    expect(withoutPrints(startPrints(fit))).toEqual(fit);
    expect(withoutPrints(withPrintMore(startPrints(fit))).photos).toEqual({ count: 3 });
    expect(withoutPrints(fit)).toBe(fit);
  });

  it("come and go with names of their own", () => {
    const fewer = withPrintLess(withPrintMore(startPrints(fit)), "f1");
    expect(printsOf(fewer)?.map((p) => p.id)).toEqual(["f2", "f3"]);
    expect(printsOf(withPrintMore(fewer))?.map((p) => p.id)).toEqual(["f2", "f3", "f4"]);
    const one = withPrintLess(fewer, "f2");
    expect(withPrintLess(one, "f3")).toBe(one);
  });

  it("have one main photo, sizes of their own and a rule for all", () => {
    const sized = withFocal(withFocal(withPrintSize(startPrints(fit), "f2", "w", 7), "f1"), "f2");
    expect(printsOf(sized)).toEqual([
      { id: "f1", w: 4, h: 6 },
      { id: "f2", w: 7, h: 4, focal: true },
    ]);
    expect(withPhotoRule(sized, true).photo_rule).toBe("whole");
    expect(withPhotoRule(withPhotoRule(sized, true), false).photo_rule).toBeUndefined();
  });

  it("carry faces, which turn with them", () => {
    const listed = startPrints(fit);
    const squares = faceSquares({ id: "f1", w: 4, h: 6 }, "in");
    expect(squares).toEqual({ cols: 4, rows: 6 });
    const marked = withFace(listed, "f1", 1, 0);
    expect(printsOf(marked)?.[0]?.faces).toEqual([{ x: 0.25, y: 0, w: 0.25, h: 0.1667 }]);
    const print = printsOf(marked)?.[0];
    expect(print && isMarked(print, 1, 0, squares)).toBe(true);
    expect(print && isMarked(print, 2, 0, squares)).toBe(false);
    expect(printsOf(withFace(marked, "f1", 1, 0))).toEqual(printsOf(listed));
    // A quarter clockwise: what was at the top is at the right.
    const turned = printsOf(withPrintTurned(marked, "f1"))?.[0];
    expect(turned).toEqual({ id: "f1", w: 6, h: 4, faces: [{ x: 0.8333, y: 0.25, w: 0.1667, h: 0.25 }] });
  });

  it("are as large in the other unit", () => {
    const a4 = withSize(startPrints(fit), { unit: "mm", w: 210, h: 297 });
    expect(printsOf(a4)?.[0]).toEqual({ id: "f1", w: 101.6, h: 152.4 });
  });
});
