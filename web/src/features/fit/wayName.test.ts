import { describe, expect, test } from "vitest";
import type { FitDoc } from "@/api/client";
import { otherStands, saysOf, stands, wayName } from "./wayName";

const fit = {
  format: "metrosk-fit/1",
  unit: "in",
  approach: "scale",
  pins: [{ block: "p1", edge: "left", at: 1 }],
  sketch: { format: "metrosk-sketch/1", unit: "in", canvas: { page: { w: 12, h: 12 }, pages: 1 }, blocks: [] },
  target: { page: { w: 8.5, h: 11 }, pages: 1 },
} as unknown as FitDoc;

describe("ways", () => {
  test("are told in a few words", () => {
    expect(saysOf({ approach: "merge" })).toBe("both pages on one");
    expect(wayName({ approach: "scale", emphasis: "positions" })).toBe("scale, positions first");
    expect(stands({ turn: 90, flip: "across" })).toBe("turned 90°, flipped left to right");
    expect(stands({})).toBe("");
  });
  test("the other stands leave out the one it stands in, and go without pins", () => {
    const others = otherStands(fit);
    expect(others.map(stands)).toEqual(["turned 90°", "turned 270°", "flipped left to right", "flipped top to bottom"]);
    expect(others.every((f) => !f.pins && !f.approach)).toBe(true);
    expect(otherStands({ ...fit, turn: 90 }).map(stands)).toContain("");
  });
  test("a spread turns by halves only", () => {
    const spread = { ...fit, sketch: { ...fit.sketch, canvas: { ...fit.sketch.canvas, pages: 2 } } };
    expect(otherStands(spread).map((f) => f.turn)).toEqual([180, 0, 0]);
  });
});
