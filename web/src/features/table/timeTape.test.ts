import { describe, expect, it } from "vitest";
import type { PageCard } from "@/api/client";
import { dueText } from "@/shared/ui/days";
import { foldText, timeTape } from "./timeTape";

const today = new Date(2026, 10, 24);
const page = (name: string, due: string | null) => ({ id: name, name, due }) as PageCard;
const names = (pages: readonly PageCard[]) => pages.map((p) => p.name);

describe("the tape of days", () => {
  it("hangs what is due soon from its days, the soonest first", () => {
    const tape = timeTape([page("b", "2026-11-27"), page("a", "2026-11-25"), page("none", null)], today, 11);
    expect(names(tape.near)).toEqual(["a", "b"]);
    expect(tape.days).toHaveLength(11);
  });

  it("puts what is overdue before today", () => {
    expect(names(timeTape([page("late", "2026-11-01")], today, 11).overdue)).toEqual(["late"]);
  });

  it("folds what is later by weeks, and loses nothing however far it is", () => {
    const tape = timeTape([page("soon", "2026-12-06"), page("far", "2027-06-30")], today, 11);
    expect(tape.folds.map((f) => names(f.pages))).toEqual([["soon"], [], [], ["far"]]);
    expect(tape.folds.map(foldText)).toEqual(["5–11", "12–18", "19–25", "26–30 Jun"]);
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
