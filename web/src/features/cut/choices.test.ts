import { describe, expect, it } from "vitest";
import type { CutCureDoc, CutSheetDoc, PageCutsDoc, PlanDoc } from "@/api/client";
import { countsOf, lockOf, preferenceOf, withCure, withLock, withPreference } from "./model";

const plan = {
  unit: "in",
  papers: { pieces: { s1: { "0": { paper: { item: "dots" }, tuck: 0.5 } } } },
} as unknown as PlanDoc;

describe("choices of the Cut station", () => {
  it("holds a piece and lets it go", () => {
    const held = withLock(plan, "s1/0", { from: "dots#1B", upright: true });
    expect(lockOf(held, "s1/0")).toEqual({ from: "dots#1B", upright: true });
    const turned = withLock(held, "s1/0", { from: "dots#1B", upright: undefined });
    expect(lockOf(turned, "s1/0")).toEqual({ from: "dots#1B" });
    expect(withLock(turned, "s1/0", {}).cut?.locks).toEqual({});
  });

  it("takes a plan of few settings, and leaves one that it has as it is", () => {
    expect(preferenceOf(plan)).toBe("largest-rest");
    expect(withPreference(plan, "largest-rest")).toBe(plan);
    expect(preferenceOf(withPreference(plan, "few-settings"))).toBe("few-settings");
  });

  it("merges a cure into what is decided about the piece", () => {
    const cure = { patch: { pieces: { s1: { "0": { cut: "lean" } }, m1: { "0": { cut_as: "strips" } } } } };
    const cured = withCure(plan, cure as unknown as CutCureDoc);
    expect(cured.papers?.pieces?.s1?.["0"]).toEqual({ paper: { item: "dots" }, tuck: 0.5, cut: "lean" });
    expect(cured.papers?.pieces?.m1?.["0"]).toEqual({ cut_as: "strips" });
    expect(plan.papers?.pieces?.s1?.["0"]).not.toHaveProperty("cut");
  });

  it("counts sheets that are opened, settings and the largest rest", () => {
    const sheet = (item: string, rests: { w: number; h: number }[]) =>
      ({ item, cuts: [{}], steps: [{}, {}], rests }) as unknown as CutSheetDoc;
    const cuts = {
      sheets: [sheet("dots", [{ w: 2, h: 3 }]), sheet("dots#1A", [{ w: 4, h: 2 }])],
      short: [{}],
    } as unknown as PageCutsDoc;
    expect(countsOf(cuts)).toEqual({ opened: 1, settings: 4, rest: { w: 4, h: 2 }, short: 1 });
  });
});
