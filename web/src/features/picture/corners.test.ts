import { describe, expect, it } from "vitest";
import { around, cornersText, movedCorner, type Point, whole } from "./corners";

const size = { w: 400, h: 300 };

describe("corners of a page in a picture", () => {
  it("begin as the whole picture, clockwise from the top left", () => {
    expect(whole(size)).toEqual([
      [0, 0],
      [400, 0],
      [400, 300],
      [0, 300],
    ]);
  });

  it("move one at a time, and never out of the picture", () => {
    const moved = movedCorner(whole(size), 2, [350.5, 280], size);
    expect(moved[2]).toEqual([350.5, 280]);
    expect(moved.filter((_, n) => n !== 2)).toEqual(whole(size).filter((_, n) => n !== 2));
    expect(movedCorner(moved, 0, [-20, 999], size)[0]).toEqual([0, 300]);
  });

  it("go round two pages drawn apart by the outer corners", () => {
    const quad = (x: number): Point[] => [
      [x, 10],
      [x + 90, 12],
      [x + 92, 190],
      [x + 1, 188],
    ];
    expect(around([quad(10), quad(150)])).toEqual([
      [10, 10],
      [240, 12],
      [242, 190],
      [11, 188],
    ]);
    expect(around([quad(10)])).toEqual(quad(10));
    expect(around([])).toBeUndefined();
    expect(around([[[0, 0]]])).toBeUndefined();
  });

  it("are told to a tenth of a pixel", () => {
    expect(cornersText(movedCorner(whole(size), 1, [399.96, 0.04], size))).toBe("0,0,400,0,400,300,0,300");
    expect(cornersText(movedCorner(whole(size), 1, [12.34, 5.67], size))).toBe("0,0,12.3,5.7,400,300,0,300");
  });
});
