import { expect, test } from "vitest";
import type { ToldPageView } from "@/api/client";
import { hoursText, pagesWith } from "./model";

const page = (name: string, kits: string[]): ToldPageView => ({
  id: name,
  name,
  month: "May 2026",
  maker: "Wren",
  sketch: "Flag row",
  kits,
  colours: ["teal"],
  minutes: null,
});

test("what is picked leaves the pages that have it", () => {
  const pages = [page("a", ["Ebb"]), page("b", ["Ebb", "Lantern"])];
  expect(pagesWith(pages, undefined)).toHaveLength(2);
  expect(pagesWith(pages, { of: "kit", name: "Lantern" }).map((p) => p.name)).toEqual(["b"]);
  expect(pagesWith(pages, { of: "month", name: "June 2026" })).toEqual([]);
  expect(pagesWith(pages, { of: "colour", name: "teal" })).toHaveLength(2);
});

test("time is told in hours and minutes", () => {
  expect([40, 60, 135].map(hoursText)).toEqual(["40 min", "1 h", "2 h 15 min"]);
});
