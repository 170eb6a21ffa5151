import { describe, expect, it } from "vitest";
import { type Card, hang } from "./hanging";

const card = (id: string, day: number, picture = 114): Card => ({ id, picture, height: 114, text: 130, day });
const spans = (cards: readonly Card[], hung: ReturnType<typeof hang>["hung"]) =>
  hung.map((h) => {
    const wide = Math.max(130, cards.find((c) => c.id === h.id)?.picture ?? 0);
    return { ...h, right: h.left + wide };
  });

describe("pages that hang from the tape", () => {
  it("hang straight from their day where there is room", () => {
    const { hung } = hang([card("a", 200), card("b", 500)], 1000, 3);
    expect(hung.map((h) => [h.id, h.thread, h.row])).toEqual([
      ["a", 200, 0],
      ["b", 500, 0],
    ]);
  });

  it("never lie over each other, and no thread passes over a page", () => {
    const cards = Array.from({ length: 9 }, (_, n) => card(`p${n}`, 60 + (n % 5) * 90, n % 3 ? 114 : 228));
    const { hung, left } = hang(cards, 1000, 4);
    expect(hung.length + left.length).toBe(9);
    const all = spans(cards, hung);
    for (const a of all) {
      for (const b of all.filter((o) => o !== a)) {
        if (a.row === b.row) expect(a.right <= b.left || b.right <= a.left).toBe(true);
        if (a.row < b.row) expect(b.thread < a.left || b.thread > a.right).toBe(true);
      }
    }
  });

  it("leave over what finds no room", () => {
    const { hung, left } = hang([card("a", 70), card("b", 70)], 150, 1);
    expect([hung.length, left]).toEqual([1, ["b"]]);
  });
});
