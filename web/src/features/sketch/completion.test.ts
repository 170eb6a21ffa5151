import { describe, expect, test } from "vitest";
import { completions } from "./completion";

describe("completing what is typed by number", () => {
  test("a line begins with a kind", () => {
    expect(completions("pho", 3, [])).toEqual(["photo"]);
    expect(completions("photo 4x6 at 3, 2\nst", 20, [])).toEqual(["strip"]);
  });
  test("what the reader allows comes first", () => {
    expect(completions("grid 5x2 of 2 1/4 sta", 21, ["staggered", "stacked"])).toEqual(["staggered", "stacked"]);
  });
  test("nothing is offered for a whole word, one letter, or in the middle of a word", () => {
    expect(completions("photo", 5, [])).toEqual([]);
    expect(completions("p", 1, [])).toEqual([]);
    expect(completions("photo", 3, [])).toEqual([]);
    expect(completions("photo 4", 7, [])).toEqual([]);
  });
});
