import { describe, expect, it } from "vitest";
import type { SketchDoc } from "@/api/client";
import { blank, drawn, edged, laid, moved, onRuler, resized, sidesOf, stacked, without } from "./model";

const sketch: SketchDoc = {
  ...blank("in"),
  blocks: [
    { id: "m1", kind: "mat", box: { x: 1.875, y: 1.875, w: 4.25, h: 6.25 }, under: "p1" },
    { id: "p1", kind: "photo", box: { x: 2, y: 2, w: 4, h: 6 } },
    { id: "c1", kind: "cluster", box: { x: 5, y: 7, w: 2, h: 2 }, host: "p1", size: "large" },
  ],
};

describe("a sketch being drawn", () => {
  it("goes by the ruler", () => {
    expect(onRuler(3.07, sketch)).toBe(3.125);
    expect(onRuler(3.4, blank("mm"))).toBe(3);
  });

  it("takes a photo's mat along", () => {
    const next = moved(sketch, "p1", 0.3, -0.05);
    expect(next.blocks.map((b) => [b.box.x, b.box.y])).toEqual([
      [2.125, 1.875],
      [2.25, 2],
      [5, 7],
    ]);
    expect(moved(sketch, "p1", 0.01, 0)).toBe(sketch);
  });

  it("keeps a block from vanishing", () => {
    expect(resized(sketch, "p1", -9, 1).blocks[1]?.box).toEqual({ x: 2, y: 2, w: 0.125, h: 7 });
  });

  it("draws between two corners, whichever comes first", () => {
    const next = drawn(sketch, "photo", [10, 11], [7.02, 8]);
    expect(next.blocks[3]).toEqual({ id: "p2", kind: "photo", box: { x: 7, y: 8, w: 3, h: 3 } });
    expect(drawn(sketch, "photo", [7, 8], [7.1, 8.1])).toBe(sketch);
  });

  it("leaves nothing that names what is gone", () => {
    const next = without(sketch, "p1");
    expect(next.blocks).toEqual([{ id: "c1", kind: "cluster", box: { x: 5, y: 7, w: 2, h: 2 }, size: "large" }]);
    expect(without(sketch, "nothing")).toBe(sketch);
  });

  it("stacks", () => {
    expect(stacked(sketch, "p1", true).blocks.map((b) => b.id)).toEqual(["m1", "c1", "p1"]);
    expect(stacked(sketch, "c1", true)).toBe(sketch);
  });

  it("lays a block over a picture along lines that are there, or to the nearest 1/32 in", () => {
    const next = laid(sketch, "c1", [2.04 / 12, 3.03 / 12, 7.01 / 12, 8.02 / 12]);
    // Left and bottom go to the photo's own; the others to a mark.
    expect(next.blocks[2]?.box).toEqual({ x: 2, y: 3.03125, w: 5, h: 4.96875 });
    expect(laid(sketch, "c1", [0.5, 0.5, 0.4, 0.6])).toBe(sketch);
    expect(sidesOf(sketch, "p1")).toEqual([2 / 12, 2 / 12, 6 / 12, 8 / 12]);
  });

  it("lets a strip that reaches the page's edges run off there", () => {
    const strip = { id: "s1", kind: "strip", box: { x: 1, y: 8, w: 4, h: 1 } };
    const over = { ...sketch, blocks: [...sketch.blocks, strip] };
    const laidOver = (sides: [number, number, number, number]) => laid(over, "s1", sides).blocks[3]?.bleed;
    expect(laidOver([0, 8 / 12, 1, 9 / 12])).toEqual(["left", "right"]);
    expect(laidOver([0.1, 8 / 12, 0.9, 9 / 12])).toBeUndefined();
    expect(laid(sketch, "p1", [0, 0, 1, 1]).blocks[1]).not.toHaveProperty("bleed");
  });

  it("moves one edge and leaves the others", () => {
    expect(edged(sketch, "p1", "left", 0.5).blocks[1]?.box).toEqual({ x: 2.5, y: 2, w: 3.5, h: 6 });
    expect(edged(sketch, "p1", "bottom", -0.25).blocks[1]?.box).toEqual({ x: 2, y: 2, w: 4, h: 5.75 });
    expect(edged(sketch, "p1", "right", -9)).toBe(sketch);
  });
});
