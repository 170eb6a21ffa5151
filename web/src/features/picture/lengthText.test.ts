import { describe, expect, it } from "vitest";
import { lengthText } from "./LooksLike";

describe("a size that is suggested", () => {
  it("is written as makers write it", () => {
    expect(lengthText(8.5, "in")).toBe("8 1/2");
    expect(lengthText(210 / 25.4, "in")).toBe("210 mm");
    expect(lengthText(12, "mm")).toBe("305");
  });
});
