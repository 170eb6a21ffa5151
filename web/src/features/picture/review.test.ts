import { describe, expect, it } from "vitest";
import type { SketchDoc } from "@/api/client";
import { around, cornersText, movedCorner, whole } from "./corners";
import { chain, lifted } from "./lifting";
import { accepted, asKind, bySure, dropped, halved, merged, sized, unsure } from "./review";

const sketch: SketchDoc = {
  format: "metrosk-sketch/1",
  unit: "in",
  name: "Read",
  canvas: { page: { w: 12, h: 12 }, pages: 1 },
  blocks: [
    { id: "m1", kind: "mat", box: { x: 1, y: 1, w: 4.5, h: 6.5 }, under: "p1", sure: 0.9 },
    { id: "p1", kind: "photo", box: { x: 1.25, y: 1.25, w: 4, h: 6 }, sure: 0.6 },
    { id: "c1", kind: "cluster", size: "small", box: { x: 4, y: 6, w: 1, h: 1 }, host: "p1", sure: 0.85 },
  ],
};

describe("walking what was read", () => {
  it("shows the least sure first", () => {
    expect(bySure(sketch).map((b) => b.id)).toEqual(["p1", "c1", "m1"]);
    expect(unsure(sketch)).toBe(1);
    expect(unsure(accepted(sketch, "p1"))).toBe(0);
  });

  it("gives a block another kind, without what only the old one has", () => {
    const accent = asKind(sketch, "c1", "accent").blocks[2];
    expect(accent).toEqual({ id: "c1", kind: "accent", box: { x: 4, y: 6, w: 1, h: 1 }, host: "p1", sure: 1 });
    expect(asKind(sketch, "m1", "paper").blocks[0]).not.toHaveProperty("under");
  });

  it("makes a photo the size that is written in it, with its mat's border as it was", () => {
    const [mat, photo] = sized(sketch, "p1", { w: 3, h: 4 }).blocks;
    expect(photo?.box).toEqual({ x: 1.75, y: 2.25, w: 3, h: 4 });
    expect(mat?.box).toEqual({ x: 1.5, y: 2, w: 3.5, h: 4.5 });
    expect(photo?.sure).toBe(1);
  });

  it("drops a block and leaves nothing that names it", () => {
    const left = dropped(sketch, "p1").blocks;
    expect(left.map((b) => [b.id, b.kind])).toEqual([
      ["m1", "paper"],
      ["c1", "cluster"],
    ]);
    expect(left.some((b) => b.under === "p1" || b.host === "p1")).toBe(false);
  });
});

describe("the page's corners", () => {
  const size = { w: 400, h: 300 };

  it("stay in the picture", () => {
    expect(movedCorner(whole(size), 1, [500, -4], size)[1]).toEqual([400, 0]);
    expect(cornersText(whole(size))).toBe("0,0,400,0,400,300,0,300");
  });

  it("go round two pages drawn apart", () => {
    const left = whole({ w: 100, h: 100 });
    const right = left.map(([x, y]) => [x + 120, y] as const);
    expect(around([left, right])).toEqual([
      [0, 0],
      [220, 0],
      [220, 100],
      [0, 100],
    ]);
    expect(around([])).toBeUndefined();
  });
});

describe("mending what was read", () => {
  const strip = { id: "s1", kind: "strip", box: { x: 0, y: 8, w: 5, h: 1 }, bleed: ["left"], sure: 0.5 };
  const rest = { id: "s2", kind: "strip", box: { x: 7, y: 8, w: 5, h: 1 }, bleed: ["right"], sure: 0.5 };
  const read: SketchDoc = { ...sketch, blocks: [strip, ...sketch.blocks, rest] };

  it("merges two pieces into the box around both, where the upper one lies", () => {
    const next = merged(read, "s1", "s2");
    expect(next.blocks.map((b) => b.id)).toEqual(["m1", "p1", "c1", "s1"]);
    expect(next.blocks[3]).toEqual({ ...strip, box: { x: 0, y: 8, w: 12, h: 1 }, bleed: ["left", "right"], sure: 1 });
    expect(merged(read, "s1", "s1")).toBe(read);
  });

  it("what named the merged block names the one that is left", () => {
    const next = merged(read, "s1", "p1");
    expect(next.blocks.find((b) => b.id === "m1")?.under).toBe("s1");
    expect(next.blocks.find((b) => b.id === "c1")?.host).toBe("s1");
  });

  it("halves a block across its longer side, each half with its own bleeds", () => {
    const next = halved(merged(read, "s1", "s2"), "s1");
    const halves = next.blocks.filter((b) => b.kind === "strip");
    expect(halves.map((b) => [b.id, b.box.x, b.box.w, b.bleed])).toEqual([
      ["s1", 0, 6, ["left"]],
      ["s2", 6, 6, ["right"]],
    ]);
    const photo = halved(read, "p1").blocks.filter((b) => b.kind === "photo");
    expect(photo.map((b) => [b.box.y, b.box.h])).toEqual([
      [1.25, 3],
      [4.25, 3],
    ]);
  });
});

describe("a lifted page", () => {
  it("begins with its makers, its colours and no block", () => {
    const begun = lifted({
      name: " Low tide ",
      unit: "in",
      page: { w: 8.5, h: 11 },
      pages: 1,
      maker: "Brisa Lund",
      after: "Ode Marsh, , Teal ",
      swatches: ["#efe8da"],
    }) as SketchDoc & { origin: unknown };
    expect(begun.origin).toEqual({ how: "scraplift", maker: "Brisa Lund", after: ["Ode Marsh", "Teal"] });
    expect([begun.name, begun.blocks.length, begun.canvas.page.w]).toEqual(["Low tide", 0, 8.5]);
    expect(chain("")).toEqual([]);
  });
});
