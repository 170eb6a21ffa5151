import { describe, expect, it } from "vitest";
import { chain, lifted } from "./lifting";

const page = { name: " Grey morning ", unit: "in" as const, page: { w: 12, h: 12 }, pages: 1, swatches: ["#334455"] };

describe("a sketch over a finished page", () => {
  it("credits the maker and those before her, oldest first", () => {
    const sketch = lifted({ ...page, maker: " Sorrel ", after: "Plover, , Dunlin ," });
    expect(sketch).toHaveProperty("origin", { how: "scraplift", maker: "Sorrel", after: ["Plover", "Dunlin"] });
    expect(sketch).toMatchObject({ name: "Grey morning", blocks: [], canvas: { page: { w: 12, h: 12 }, pages: 1 } });
  });

  it("has no maker rather than an empty one, and a name of some kind", () => {
    const sketch = lifted({ ...page, name: "  ", maker: " ", after: "" });
    expect(sketch).toHaveProperty("origin", { how: "scraplift", after: [] });
    expect(sketch.name).toBe("A lifted page");
  });

  it("reads names with commas between", () => {
    expect(chain("")).toEqual([]);
    expect(chain(" A ,B,  ,C c")).toEqual(["A", "B", "C c"]);
  });
});
