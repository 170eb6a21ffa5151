import { describe, expect, it } from "vitest";
import type { FitDoc } from "@/api/client";
import { ledgerRows, photoCount, withoutPin, withPages, withPhotos, withPin, withSize } from "./model";

const box = { x: 1, y: 2, w: 3, h: 4 };
const fit: FitDoc = {
  format: "metrosk-fit/1",
  unit: "in",
  sketch: {
    format: "metrosk-sketch/1",
    unit: "in",
    name: "One",
    canvas: { page: { w: 12, h: 12 }, pages: 1 },
    blocks: [{ id: "p1", kind: "photo", box }],
  },
  target: { page: { w: 12, h: 12 }, pages: 1, margin: 0.25, fold_guard: 0.25 },
  snap: 0.125,
  approach: "scale",
  pins: [{ block: "p1", edge: "left", at: 2 }],
};

describe("choices of the Fit station", () => {
  it("gives back the same request when nothing changes", () => {
    expect(withPages(fit, 1)).toBe(fit);
    expect(withPhotos(fit, 1)).toBe(fit);
    expect(withPhotos(fit, 0)).toBe(fit);
    expect(withoutPin(fit, "p1", "top")).toBe(fit);
    expect(withSize(fit, { unit: "in", w: 12, h: 12 })).toBe(fit);
  });

  it("drops a way that belongs to the other page count", () => {
    const two = withPages(fit, 2);
    expect(two.target.pages).toBe(2);
    expect(two.approach).toBeUndefined();
    expect(two.pins).toEqual(fit.pins);
  });

  it("says nothing about photos when as many are wanted as drawn", () => {
    const four = withPhotos(fit, 4);
    expect(photoCount(four)).toEqual({ count: 4, drawn: 1, asDrawn: false });
    expect(withPhotos(four, 1).photos).toBeUndefined();
  });

  it("puts margin, guard and pins on the other unit's ruler", () => {
    const a4 = withSize(fit, { unit: "mm", w: 210, h: 297 });
    expect(a4.target).toEqual({ page: { w: 210, h: 297 }, pages: 1, margin: 6, fold_guard: 6 });
    expect(a4.snap).toBe(1);
    expect(a4.pins).toEqual([{ block: "p1", edge: "left", at: 51 }]);
    expect(withSize(a4, { unit: "in", w: 8.5, h: 11 }).target.margin).toBe(0.25);
  });

  it("pins an edge once", () => {
    const again = withPin(fit, "p1", "left", 3);
    expect(again.pins).toEqual([{ block: "p1", edge: "left", at: 3 }]);
    expect(withoutPin(again, "p1", "left").pins).toEqual([]);
  });

  it("measures a block off the fold on its own page", () => {
    const here = { x: 12.5, y: 2, w: 3, h: 4 };
    const rows = ledgerRows(withPages(fit, 2), {
      id: "p1",
      sketch: box,
      wanted: { ...box, x: 10, w: 1.5 },
      here,
      why: [],
    });
    const fold = rows.find((r) => r.label === "off the fold");
    expect(fold?.here).toBe(0.5);
    expect(fold?.wanted).toBe(0.5);
  });

  it("has no measure off the fold for what stands on both pages", () => {
    const across = { x: 10, y: 2, w: 5, h: 4 };
    const rows = ledgerRows(withPages(fit, 2), { id: "t1", sketch: box, wanted: across, here: across, why: [] });
    expect(rows.find((r) => r.label === "off the fold")).toEqual({
      label: "off the fold",
      wanted: undefined,
      here: undefined,
    });
    expect(ledgerRows(withPages(fit, 1), { id: "t1", sketch: box, wanted: box, here: box, why: [] })).toHaveLength(6);
  });
});
