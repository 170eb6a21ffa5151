import { describe, expect, it } from "vitest";
import { faultOf, nextLetter, ofKind, withoutGaps } from "./asks";

describe("what is asked of a page", () => {
  it("goes by letters that are free", () => {
    expect(nextLetter([])).toBe("a");
    expect(
      nextLetter([
        { id: "a", what: "sketch" },
        { id: "c", what: "kit", name: "Ebb" },
      ]),
    ).toBe("b");
  });

  it("begins with what is usual for its kind", () => {
    expect(ofKind({ id: "b", what: "kit", name: "Ebb" }, "pages", "in")).toEqual({ id: "b", what: "pages", count: 2 });
    expect(ofKind({ id: "b", what: "pages", count: 2 }, "large-photo", "mm")).toEqual({
      id: "b",
      what: "large-photo",
      w: 150,
      h: 100,
    });
  });

  it("is sent without what was left empty", () => {
    expect(withoutGaps({ name: "Flats", text: "", asks: [], due: "2026-11-28" })).toEqual({
      name: "Flats",
      due: "2026-11-28",
    });
  });

  it("is told what is wrong in words", () => {
    expect(faultOf({ name: " " })).toBe("Give the call a name.");
    expect(faultOf({ name: "x", due: "2026-12-02", shown: "2026-12-01" })).toContain("before it is due");
    expect(faultOf({ name: "x", asks: [{ id: "f", what: "other", name: "" }] })).toBe("Say what is asked under f.");
    expect(faultOf({ name: "x", links: [{ name: "rules", url: "ftp://x" }] })).toContain("“rules”");
    expect(faultOf({ name: "x" })).toBeUndefined();
  });
});
