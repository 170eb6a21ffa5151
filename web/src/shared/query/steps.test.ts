import { describe, expect, it } from "vitest";
import { stepped } from "./steps";

const begun = { past: [], now: 1, future: [] };

describe("steps", () => {
  it("go back and forth", () => {
    const two = stepped(stepped(begun, { type: "changed", to: 2 }), { type: "changed", to: 3 });
    const back = stepped(two, { type: "undo" });
    expect(back.now).toBe(2);
    expect(stepped(back, { type: "redo" })).toEqual(two);
    expect(stepped(begun, { type: "undo" })).toBe(begun);
  });

  it("forget what was undone when something else is done", () => {
    const back = stepped(stepped(begun, { type: "changed", to: 2 }), { type: "undo" });
    expect(stepped(back, { type: "changed", to: 5 })).toEqual({ past: [1], now: 5, future: [] });
    expect(stepped(back, { type: "changed", to: 1 })).toBe(back);
  });
});
