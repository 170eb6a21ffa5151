import { expect, test } from "vitest";
import { isRough, type Point, ragged } from "./rough";

const box: Point[] = [
  [0, 0],
  [80, 0],
  [80, 60],
  [0, 60],
];

test("a torn edge runs in and never out", () => {
  const drawn = ragged(box, "torn");
  expect(drawn.length).toBeGreaterThan(40);
  expect(drawn.every(([x, y]) => x >= 0 && x <= 80 && y >= 0 && y <= 60)).toBe(true);
  expect(drawn.some(([x, y]) => y > 0.5 && y < 4 && x > 4 && x < 76)).toBe(true);
});

test("a cut edge stays as it is", () => {
  expect(isRough("cut")).toBe(false);
  expect(isRough(undefined)).toBe(false);
  expect(ragged(box, "cut")).toEqual(box);
});
