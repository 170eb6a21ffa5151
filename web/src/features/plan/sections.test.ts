import { describe, expect, it } from "vitest";
import type { PlanDoc } from "@/api/client";
import { fitOf, withFit } from "./sections";

const plan = {
  format: "metrosk-plan/2",
  unit: "in",
  sketch: { sketch: { blocks: [] }, turn: 90, mark: "settled", grounds: { "call.call": "x" } },
  photos: { photos: { count: 6 } },
  fit: { target: { page: { w: 12, h: 12 }, pages: 1 }, snap: 0.125, pins: [] },
} as unknown as PlanDoc;

describe("a plan's sections", () => {
  it("make one fit request, without the stations' marks", () => {
    const fit = fitOf(plan);
    expect(fitOf(plan)).toBe(fit);
    expect(fit).toEqual({
      format: "metrosk-fit/1",
      unit: "in",
      sketch: { blocks: [] },
      turn: 90,
      photos: { count: 6 },
      target: { page: { w: 12, h: 12 }, pages: 1 },
      snap: 0.125,
      pins: [],
    });
  });

  it("take a changed request apart again", () => {
    const { turn: _, ...rest } = fitOf(plan);
    const next = withFit(plan, { ...rest, unit: "mm", photo_rule: "whole", approach: "frame" });
    expect(next.unit).toBe("mm");
    expect(next.photos).toEqual({ photos: { count: 6 }, photo_rule: "whole" });
    expect(next.fit.approach).toBe("frame");
    expect(next.sketch).toEqual({ sketch: { blocks: [] }, mark: "settled", grounds: { "call.call": "x" } });
    expect(next.sketch.sketch).toBe(plan.sketch.sketch);
    expect(withFit(plan, { ...fitOf(plan) })).toBe(plan);
  });
});
