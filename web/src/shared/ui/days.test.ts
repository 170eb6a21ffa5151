import { describe, expect, it } from "vitest";
import { dayOf, daysBetween, dueText, isoDay } from "./days";

const today = new Date(2026, 10, 26, 23, 50);

describe("days", () => {
  it("are written and read as documents have them", () => {
    for (const iso of ["2026-01-01", "2026-11-26", "2028-02-29"]) expect(isoDay(dayOf(iso))).toBe(iso);
  });

  it("are counted whole, whatever the hour and over a change of clocks", () => {
    expect(daysBetween(today, dayOf("2026-11-27"))).toBe(1);
    expect(daysBetween(new Date(2026, 2, 28), new Date(2026, 2, 30))).toBe(2);
    expect(daysBetween(new Date(2026, 9, 24, 12), new Date(2026, 9, 26, 1))).toBe(2);
    expect(daysBetween(today, dayOf("2026-11-20"))).toBe(-6);
  });

  it("are told as makers tell them", () => {
    const told = (iso: string) => dueText(iso, today);
    expect(told("2026-11-26")).toBe("due today");
    expect(told("2026-11-27")).toBe("due tomorrow");
    expect(told("2026-11-25")).toBe("due yesterday");
    expect(told("2026-11-23")).toBe("3 days overdue");
    expect(told("2026-11-30")).toBe("due Monday 30");
    expect(told("2026-12-04")).toBe("due Friday, 4 Dec");
    // The same month of another year is another month.
    expect(told("2027-11-30")).toBe("due Tuesday, 30 Nov");
  });
});
