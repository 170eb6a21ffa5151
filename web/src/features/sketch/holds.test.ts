import { describe, expect, test } from "vitest";
import type { FitDoc, LinkDoc } from "@/api/client";
import { added, holdsFor, holdsTo, keepOf, switched, unadded, withKeep } from "./holds";

const box = { x: 0, y: 0, w: 1, h: 1 };
const fit = {
  format: "metrosk-fit/1",
  unit: "in",
  sketch: {
    format: "metrosk-sketch/1",
    unit: "in",
    canvas: { page: { w: 12, h: 12 }, pages: 1 },
    blocks: ["p1", "p2", "t1"].map((id) => ({ id, kind: "photo", box })),
  },
  target: { page: { w: 12, h: 12 }, pages: 1 },
} as FitDoc;
const line: LinkDoc = { what: "line", along: "left", blocks: ["p1", "p2", "t1"] };

describe("what a page holds to", () => {
  test("a reading is switched off and on again, in whatever order its blocks are named", () => {
    const off = switched(fit, line);
    expect(holdsTo(off, { ...line, blocks: ["t1", "p2", "p1"] })).toBe(false);
    expect(holdsTo(off, { ...line, along: "right" })).toBe(true);
    expect(switched(off, line)).toEqual(fit);
  });
  test("a reading of her own is added once and taken away", () => {
    const touch: LinkDoc = { what: "touch", blocks: ["p1", "p2"] };
    const on = added(fit, touch);
    expect(added(on, touch)).toBe(on);
    expect(unadded(on, touch)).toEqual(fit);
  });
  test("a block is held, held otherwise, and let go", () => {
    const place = withKeep(fit, "p1", "place");
    expect(keepOf(place, "p1")).toBe("place");
    expect(keepOf(withKeep(place, "p1", "free"), "p1")).toBe("free");
    expect(withKeep(place, "p1", undefined)).toEqual(fit);
  });
  test("what speaks of a block that is gone goes with it", () => {
    const held = withKeep(switched(fit, line), "t1", "both");
    const gone = { ...held, sketch: { ...held.sketch, blocks: held.sketch.blocks.slice(0, 2) } };
    const left = holdsFor(gone);
    expect(left.keep).toBeUndefined();
    expect(left.readings?.off).toEqual([{ what: "line", along: "left", blocks: ["p1", "p2"] }]);
  });
});
