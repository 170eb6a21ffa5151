import { describe, expect, it } from "vitest";
import { measureLabels, measureLines } from "./measureLabels";

const canvas = { page: { w: 12, h: 12 }, pages: 1 };
const at = (x: number, y: number, w: number, h: number, scale = 30) => ({
  box: { x, y, w, h },
  canvas,
  unit: "in" as const,
  scale,
  bounds: { w: 12 * scale, h: 12 * scale },
});

describe("the labels of a measured block", () => {
  it("have a line to each edge that the block does not lie on", () => {
    expect(measureLines(at(0, 3, 4, 2)).map((l) => [l.key, l.value])).toEqual([
      ["right", 8],
      ["top", 3],
      ["bottom", 7],
    ]);
  });

  it("lie on no number and on no other label where there is room", () => {
    for (const [x, y] of [
      [2, 2],
      [5, 5],
      [3, 7.5],
      [7, 1],
    ] as const) {
      const drawn = at(x, y, 3, 2);
      // A number in the middle of the block and of each of its lines.
      const numbers = [
        { x: (x + 1.5) * 30, y: (y + 1) * 30 },
        ...measureLines(drawn).map((l) => ({ x: (l.from[0] + l.to[0]) / 2, y: (l.from[1] + l.to[1]) / 2 })),
      ];
      const { laid } = measureLabels(drawn, numbers);
      expect(laid).toHaveLength(5);
      for (const a of laid) {
        for (const n of numbers) {
          expect(Math.abs(a.x - n.x) >= a.w / 2 + 8 || Math.abs(a.y - n.y) >= a.h / 2 + 8).toBe(true);
        }
        for (const b of laid.filter((o) => o !== a)) {
          expect(Math.abs(a.x - b.x) >= (a.w + b.w) / 2 || Math.abs(a.y - b.y) >= (a.h + b.h) / 2).toBe(true);
        }
      }
    }
  });

  it("stay on the page", () => {
    const { laid } = measureLabels(at(10.5, 0.1, 1.4, 0.5), []);
    for (const l of laid) {
      expect(l.x - l.w / 2).toBeGreaterThanOrEqual(0);
      expect(l.x + l.w / 2).toBeLessThanOrEqual(361);
      expect(l.y - l.h / 2).toBeGreaterThanOrEqual(0);
    }
  });
});
