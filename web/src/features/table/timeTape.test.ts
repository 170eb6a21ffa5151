import { describe, expect, it } from "vitest";
import type { PageCard } from "@/api/client";
import { dueText } from "@/shared/ui/days";
import { timeTape } from "./timeTape";

const today = new Date(2026, 10, 24);
const page = (name: string, due: string | null) => ({ id: name, name, due }) as PageCard;

describe("the tape of days", () => {
  it("hangs pages of one day together, by due date", () => {
    const marks = timeTape([page("b", "2026-11-27"), page("a", "2026-11-27"), page("none", null)], today);
    const day = marks.find((m) => m.kind === "day" && m.pages.length > 0);
    expect(day?.kind === "day" && [day.away, day.pages.map((p) => p.name)]).toEqual([3, ["b", "a"]]);
  });

  it("puts what is overdue before today", () => {
    const [first] = timeTape([page("late", "2026-11-01")], today);
    expect(first?.kind).toBe("overdue");
  });

  it("folds long runs without a page, but never loses a day", () => {
    const marks = timeTape([page("far", "2027-01-31")], today);
    const days = marks.reduce((n, m) => n + (m.kind === "folded" ? m.days : m.kind === "day" ? 1 : 0), 0);
    expect(days).toBe(69);
    expect(marks.some((m) => m.kind === "folded")).toBe(true);
  });

  it("shows some days when nothing is due", () => {
    expect(timeTape([], today).map((m) => m.kind)).toEqual(["day", "day", "day", "day", "folded"]);
  });
});

describe("a due date in words", () => {
  it("is told from today", () => {
    expect(dueText("2026-11-24", today)).toBe("due today");
    expect(dueText("2026-11-27", today)).toBe("due Friday 27");
    expect(dueText("2026-12-03", today)).toBe("due Thursday, 3 Dec");
    expect(dueText("2026-11-20", today)).toBe("4 days overdue");
  });
});
