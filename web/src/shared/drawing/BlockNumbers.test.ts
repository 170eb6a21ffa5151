import { describe, expect, it } from "vitest";
import { byNumber, inPieces, numbersOf } from "./BlockNumbers";

const numbers = new Map([...numbersOf([{ id: "s1" }, { id: "m1" }, { id: "p1" }]), ["p1b", "3b"] as [string, string]]);

describe("blocks by their numbers", () => {
  it("stand in a sentence instead of their ids", () => {
    expect(inPieces("Photo p1 is split: p1 and p1b.", numbers)).toEqual([
      "Photo ",
      { number: "3" },
      " is split: ",
      { number: "3" },
      " and ",
      { number: "3b" },
      ".",
    ]);
    expect(byNumber("left edge of m1 pinned", numbers)).toBe("left edge of 2 pinned");
  });

  it("leave alone what is no block's", () => {
    for (const text of ["A4 at 3 in", "p9 is gone", "page 8 × 8 in", "sp1lt"])
      expect(byNumber(text, numbers)).toBe(text);
  });
});
