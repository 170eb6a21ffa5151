import { describe, expect, it } from "vitest";
import type { SeasonCallView } from "@/api/client";
import { isoDay } from "@/shared/ui/days";
import { COLUMN, namedDays, seasonTape } from "./tape";

const today = new Date(2026, 10, 25);
const call = (id: string, days: number | undefined): SeasonCallView => ({
  id,
  name: id,
  kind: "challenge",
  due: days === undefined ? null : isoDay(new Date(2026, 10, 25 + days)),
  open: false,
  comes_again: false,
  makers: [],
});

describe("the season's tape", () => {
  it("hangs each call from its own day", () => {
    const tape = seasonTape([call("a", -4), call("b", 3), call("c", undefined)], today, 1000);
    expect(tape.hung.map((h) => h.call.id)).toEqual(["a", "b"]);
    const [a, b] = tape.hung;
    expect((b?.day ?? 0) - (a?.day ?? 0)).toBeCloseTo(7 * tape.each);
    expect(tape.today - (a?.day ?? 0)).toBeCloseTo(4 * tape.each);
  });

  it("lets no column stand over another in its row, nor run off the tape", () => {
    const calls = Array.from({ length: 60 }, (_, n) => call(`c${n}`, Math.floor(n * 1.4) - 20));
    const { hung, rows } = seasonTape(calls, today, 1252);
    for (const a of hung) {
      expect(a.left).toBeGreaterThanOrEqual(0);
      expect(a.left + COLUMN).toBeLessThanOrEqual(1252.5);
      for (const b of hung) {
        if (a !== b && a.row === b.row) expect(Math.abs(a.left - b.left)).toBeGreaterThanOrEqual(COLUMN - 1);
      }
    }
    expect(rows).toBeLessThanOrEqual(9);
  });

  it("keeps the order of the days, so that no thread crosses another", () => {
    const { hung } = seasonTape([call("a", 8), call("b", 9), call("c", 13)], today, 1252);
    const [a, b, c] = hung;
    expect(a?.row).toBe(b?.row);
    expect((b?.left ?? 0) - (a?.left ?? 0)).toBeCloseTo(COLUMN);
    expect((c?.left ?? 0) - (b?.left ?? 0)).toBeGreaterThanOrEqual(COLUMN - 0.01);
  });

  it("names a day a week, and the calls' own weekday where it can", () => {
    const tape = seasonTape([call("a", 3)], today, 1000);
    const named = namedDays(tape);
    expect(named.every(({ day }) => day.getDay() === 6)).toBe(true);
    expect(named.length).toBeGreaterThanOrEqual(4);
  });
});
