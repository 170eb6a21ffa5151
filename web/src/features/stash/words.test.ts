import { describe, expect, it } from "vitest";
import type { StashItemDoc, StashItemView } from "@/api/client";
import { withNotes } from "./notes";
import { countText } from "./words";

const item = (name: string, count = 4) => ({ name, count }) as StashItemDoc;
const thing = (count: number, held: number) =>
  ({ item: item("Dots", count), held, free: count - held, holds: [] }) as unknown as StashItemView;

describe("things in words", () => {
  it("says how many there are and how many are held", () => {
    expect(countText(thing(4, 0))).toBe("4");
    expect(countText(thing(4, 2))).toBe("4, two held");
    expect(countText(thing(4, 2), 1)).toBe("4, one held here");
    expect(countText(thing(0, 0))).toBe("none left");
  });

  it("keeps what is not understood as a note on the thing before it", () => {
    const said = [{ item: item("Dots") }, { unknown: "frayed" }, { unknown: "old" }, { item: item("Waves") }];
    expect(withNotes(said).map((i) => i.note)).toEqual(["frayed, old", undefined]);
    expect(withNotes([{ unknown: "frayed" }])).toEqual([]);
  });
});
