import { describe, expect, it } from "vitest";
import { askText, hourText, longDay, repeatChoices, repeatText } from "./words";

describe("a call in words", () => {
  it("tells how it comes again", () => {
    expect(repeatText({ every: "weeks", number: 1 }, "2026-11-28")).toBe("every Saturday");
    expect(repeatText({ every: "weeks", number: 2, until: "2027-03-06" }, "2026-11-28")).toBe(
      "every second Saturday until 6 Mar",
    );
    expect(repeatText({ every: "month-day", number: 1 }, "2026-12-01")).toBe("on the 1st of each month");
    expect(repeatText({ every: "month-day", number: 23 }, "2026-12-23")).toBe("on the 23rd of each month");
    expect(repeatText({ every: "month-day", number: 12 }, "2026-12-12")).toBe("on the 12th of each month");
    expect(repeatText({ every: "month-week", number: 5 }, "2026-11-28")).toBe("on each month’s last Saturday");
  });

  it("offers what is usual from its day on", () => {
    expect(repeatChoices("2026-12-05").map((c) => c.label)).toEqual([
      "every Saturday",
      "every second Saturday",
      "every 4th Saturday",
      "on the 5th of each month",
      "on each month’s first Saturday",
    ]);
  });

  it("tells days and hours", () => {
    expect(longDay("2026-11-28", new Date(2026, 0, 1))).toBe("Saturday 28 November");
    expect(longDay("2027-01-02", new Date(2026, 0, 1))).toContain("2027");
    expect(hourText("23:00")).toMatch(/^11:00\spm$/);
  });

  it("tells what is asked", () => {
    expect(askText({ id: "a", what: "large-photo", w: 6, h: 4 }, "in")).toBe("A photo of 6 × 4 in or larger");
    expect(askText({ id: "a", what: "papers", count: 3, kit: "Ebb" }, "in")).toBe("3 papers of Ebb at least");
    expect(askText({ id: "a", what: "other", name: "A sledge" }, "in")).toBe("A sledge");
  });
});
