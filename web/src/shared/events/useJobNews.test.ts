import { describe, expect, it } from "vitest";
import type { Told } from "./stream";
import { isJobNews } from "./useJobNews";

const told = (thing: string, state?: string): Told =>
  ({ kind: "changed", id: 1, event: { thing, state } }) as unknown as Told;

describe("what is told of jobs", () => {
  it("is news where it is about a known job, or where any job has ended: its id may not be known yet", () => {
    expect(isJobNews(told("a", "running"), ["a"])).toBe(true);
    expect(isJobNews(told("b", "running"), ["a"])).toBe(false);
    for (const state of ["done", "failed", "cancelled"]) expect(isJobNews(told("b", state), ["a"])).toBe(true);
    expect(isJobNews(told("a page"), ["a"])).toBe(false);
    expect(isJobNews({ kind: "again" }, [])).toBe(true);
  });
});
