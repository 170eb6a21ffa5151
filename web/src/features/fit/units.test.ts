import { expect, it } from "vitest";
import type { FitDoc } from "@/api/client";
import { withSize } from "./model";

it("another unit leaves mats and the room for them as they are on paper", () => {
  const fit = {
    format: "metrosk-fit/1",
    unit: "in",
    sketch: { unit: "in", blocks: [] },
    target: { page: { w: 12, h: 12 }, pages: 1 },
    mats: [{ of: ["p1"], layers: [{ border: 0.125, off: { x: 0.0625 }, edge: "torn" }] }],
    room: 0.25,
  } as unknown as FitDoc;
  const metric = withSize(fit, { unit: "mm", w: 210, h: 297 }) as FitDoc & { room: number };
  expect(metric.mats).toEqual([{ of: ["p1"], layers: [{ border: 3.175, off: { x: 1.5875 }, edge: "torn" }] }]);
  expect(metric.room).toBe(6.35);
});
