import { describe, expect, it } from "vitest";
import type { SketchView } from "@/api/client";
import { ranks, suits, traysOf } from "./trays";

const sketch = (id: string, photo_slots: number, changes?: number) =>
  ({ id, reading: { photo_slots }, changes }) as SketchView;

describe("the drawer's trays", () => {
  it("sort sketches by their photos, and leave empty trays out", () => {
    const trays = traysOf([sketch("a", 3), sketch("b", 1), sketch("c", 9), sketch("d", 2)]);
    expect(trays.map((t) => [t.name, t.sketches.map((s) => s.id)])).toEqual([
      ["One and two photos", ["b", "d"]],
      ["Three photos", ["a"]],
      ["Five and more", ["c"]],
    ]);
  });

  it("rank what suits, the fewest changes first", () => {
    const all = [sketch("a", 3, 2), sketch("b", 5, 0), sketch("c", 9, 4), sketch("d", 0)];
    expect([...ranks(all, true)]).toEqual([
      ["b", 1],
      ["a", 2],
    ]);
    expect(all.map((s) => suits(s, true))).toEqual([true, true, false, false]);
    expect(ranks(all, false).size).toBe(0);
  });
});
