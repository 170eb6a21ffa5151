import { describe, expect, it } from "vitest";
import { fitOf } from "./testing";
import { quarterServes } from "./turning";

const fit = fitOf([
  { id: "p1", kind: "photo", box: { x: 1, y: 1, w: 4, h: 6 } },
  { id: "p2", kind: "photo", box: { x: 6, y: 1, w: 2, h: 3 } },
  { id: "p3", kind: "photo", box: { x: 6, y: 5, w: 3, h: 3 } },
]);
const level = { w: 6, h: 4 };
const upright = { w: 4, h: 6 };
const prints = (...sizes: { w: number; h: number }[]) => sizes.map((s, n) => ({ id: `f${n}`, ...s }));

describe("a quarter turn", () => {
  it("serves level prints on an upright sketch", () => {
    expect(quarterServes({ ...fit, photos: prints(level, level, upright) })).toContain("turned a quarter");
    expect(quarterServes({ ...fit, photos: prints(upright, upright, level) })).toBeUndefined();
    expect(quarterServes({ ...fit, photos: prints(level, level, level), turn: 90 })).toBeUndefined();
    expect(quarterServes({ ...fit, photos: { count: 5 } })).toBeUndefined();
  });

  it("serves a page that lies where the sketch stands", () => {
    const standing = { ...fit.sketch, canvas: { page: { w: 8.5, h: 11 }, pages: 1 } };
    const lying = { page: { w: 11, h: 8.5 }, pages: 1 };
    expect(quarterServes({ ...fit, sketch: standing, target: lying })).toContain("shape");
    expect(quarterServes({ ...fit, sketch: standing, target: { ...lying, pages: 2 } })).toBeUndefined();
    expect(quarterServes({ ...fit, target: lying })).toBeUndefined();
  });

  it("is none of a spread", () => {
    const spread = { ...fit.sketch, canvas: { page: { w: 12, h: 12 }, pages: 2 } };
    expect(quarterServes({ ...fit, sketch: spread, photos: prints(level, level) })).toBeUndefined();
  });
});
