import { describe, expect, it } from "vitest";
import type { LayoutBlockDoc, SketchDoc } from "@/api/client";
import { extent, kindWord, numbered, scaled } from "./geometry";

const sketch = {
  format: "metrosk-sketch/1",
  unit: "in",
  name: "Numbers",
  canvas: { page: { w: 12, h: 12 }, pages: 1 },
  blocks: [
    { id: "s1", kind: "strip", box: { x: 0, y: 9, w: 12, h: 1 } },
    { id: "p1", kind: "photo", box: { x: 1, y: 1, w: 4, h: 6 } },
  ],
} as SketchDoc;

const part = (id: string, from: string[]) =>
  ({ id, from, kind: "photo", page: 0, box: { x: 0, y: 0, w: 1, h: 1 } }) as LayoutBlockDoc;

describe("numbers of blocks", () => {
  it("are those of the sketch card, with letters for further parts", () => {
    const blocks = [
      part("s1", ["s1"]),
      part("p1", ["p1"]),
      part("p1b", ["p1"]),
      part("s1b", ["s1"]),
      part("p1c", ["p1"]),
    ];
    expect(numbered(sketch, blocks).map((b) => b.number)).toEqual(["1", "2", "2b", "1b", "2c"]);
  });

  it("of merged slots are the first one's, and what was added has a plus", () => {
    const found = numbered(sketch, [part("p1", ["p1", "p2"]), part("n1", []), part("x1", ["gone"])]);
    expect(found.map((b) => b.number)).toEqual(["2", "+", "+"]);
    expect(found.map((b) => b.index)).toEqual([1, -1, -1]);
  });
});

describe("boxes", () => {
  const box = { x: 2, y: 3, w: 4, h: 2 };

  it("keep their sides up to an eighth of a turn", () => {
    expect(extent({ box })).toEqual(box);
    for (const turn of [0, 44, -45, 180, 170, -170]) expect(extent({ box, turn })).toEqual(box);
  });

  it("exchange them about the centre beyond", () => {
    for (const turn of [90, -90, 46, 270, -100]) expect(extent({ box, turn })).toEqual({ x: 3, y: 2, w: 2, h: 4 });
  });

  it("scale in every length", () => {
    expect(scaled(box, 0.5)).toEqual({ x: 1, y: 1.5, w: 2, h: 1 });
  });
});

it("calls kinds as makers do", () => {
  expect(["paper", "journal", "photo", "wash"].map(kindWord)).toEqual(["panel", "journaling", "photo", "wash"]);
});
