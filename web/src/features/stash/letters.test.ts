import { describe, expect, it } from "vitest";
import { added, withCount } from "./letters";

describe("letters that are left", () => {
  it("are counted as they are typed", () => {
    expect(added({ A: 1 }, "AA B&")).toEqual({ A: 3, B: 1, "&": 1 });
    expect(added(undefined, "  ")).toEqual({});
  });
  it("never go below none", () => {
    expect(withCount({ A: 0, B: 2 }, "A", -1)).toEqual({ A: 0, B: 2 });
  });
});
