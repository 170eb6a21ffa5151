import { describe, expect, it } from "vitest";
import type { LayoutBlockDoc } from "@/api/client";
import type { Numbered } from "@/shared/drawing/geometry";
import { tagPlaces } from "./tagPlaces";

const at = (n: number, x: number, y: number, w: number, h: number): Numbered => ({
  index: n,
  number: `${n + 1}`,
  block: { id: `b${n}`, from: [`b${n}`], kind: "photo", page: 0, box: { x, y, w, h } } as LayoutBlockDoc,
});

const page = { page: { w: 12, h: 12 }, pages: 1 };
const spread = { page: { w: 12, h: 12 }, pages: 2 };
const SCALE = 24;

describe("where numbers go", () => {
  it("is the middle of a block that stands alone", () => {
    const [only] = tagPlaces([at(0, 2, 2, 4, 6)], SCALE, page);
    expect(only).toMatchObject({ x: 4 * SCALE, y: 5 * SCALE });
  });

  it("is apart for blocks with one middle, and inside each of them", () => {
    const blocks = [at(0, 2, 2, 6, 6), at(1, 2.25, 2.25, 5.5, 5.5), at(2, 3, 3, 4, 4)];
    const placed = tagPlaces(blocks, SCALE, page);
    for (const [n, a] of placed.entries()) {
      const { x, y, w, h } = a.block.box;
      expect(a.x).toBeGreaterThanOrEqual(x * SCALE);
      expect(a.x).toBeLessThanOrEqual((x + w) * SCALE);
      expect(a.y).toBeGreaterThanOrEqual(y * SCALE);
      expect(a.y).toBeLessThanOrEqual((y + h) * SCALE);
      for (const b of placed.slice(n + 1)) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(20);
    }
  });

  it("is off the fold, where the block has room beside it", () => {
    const [tilted] = tagPlaces([at(0, 11, 8, 2, 1)], SCALE, spread);
    expect(Math.abs((tilted?.x ?? 0) - 12 * SCALE)).toBeGreaterThan(8);
    const [alone] = tagPlaces([at(0, 11, 8, 2, 1)], SCALE, page);
    expect(alone?.x).toBe(12 * SCALE - 10);
  });

  it("stays on the page for what hangs over its edge", () => {
    const [hanging] = tagPlaces([at(0, -3, -3, 4, 4)], SCALE, page);
    expect(hanging?.x).toBeGreaterThanOrEqual(10);
    expect(hanging?.y).toBeGreaterThanOrEqual(10);
  });

  it("does not depend on the order beyond ties", () => {
    const blocks = [at(0, 1, 1, 8, 8), at(1, 3, 3, 2, 2), at(2, 6, 2, 3, 4)];
    const sorted = (list: readonly Numbered[]) =>
      tagPlaces(list, SCALE, page)
        .map((p) => [p.number, p.x, p.y])
        .sort();
    expect(sorted([...blocks].reverse())).toEqual(sorted(blocks));
  });
});
