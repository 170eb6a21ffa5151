import { expect, it } from "vitest";
import type { FitDoc } from "@/api/client";
import { withPhotos, withSize } from "./model";

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

it("of listed prints the last one is laid aside, and the first that lies aside comes back", () => {
  const print = (id: string, more: object = {}) => ({ id, w: 4, h: 6, ...more });
  const fit = {
    unit: "in",
    sketch: { blocks: [] },
    photos: [print("1", { focal: true }), print("2", { place: { block: "p2" } }), print("3", { aside: true })],
  } as unknown as FitDoc;
  const fewer = withPhotos(fit, 1);
  expect(fewer.photos).toEqual([print("1", { focal: true }), print("2", { aside: true }), print("3", { aside: true })]);
  expect(withPhotos(fewer, 2).photos).toEqual([print("1", { focal: true }), print("2"), print("3", { aside: true })]);
});
