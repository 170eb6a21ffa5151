import { describe, expect, it } from "vitest";
import type { PaperedPieceDoc, PlanDoc } from "@/api/client";
import { choiceOf, isGutted, papersUsed, withChoice, withGutted, withPaper, withPaperForAll } from "./model";

const plan = { format: "metrosk-plan/2", unit: "in", sketch: {}, fit: {} } as unknown as PlanDoc;

function piece(of: string | null, part: number, more: Partial<PaperedPieceDoc> = {}): PaperedPieceDoc {
  const box = { x: 0, y: 0, w: 1, h: 1 };
  const tucked = { left: 0, right: 0, top: 0, bottom: 0 };
  const name = of ? `${of}/${part}` : `ground-${part}`;
  return {
    name,
    block: name,
    of,
    part,
    page: of ? 0 : part,
    turn: 0,
    shows: box,
    cut: box,
    area: 1,
    parts: 1,
    tucked,
    told: [],
    ...more,
  };
}

const dots = { item: "dots", side: "b" };

describe("papers of a plan", () => {
  it("gives a piece a paper, and takes it away again", () => {
    const strip = piece("s1", 1);
    const papered = withPaper(plan, strip, dots);
    expect(choiceOf(papered, strip).paper).toEqual(dots);
    expect(choiceOf(papered, piece("s1", 0)).paper).toBeUndefined();
    expect(choiceOf(withPaper(papered, strip, undefined), strip)).toEqual({});
  });

  it("keeps what else is decided about a piece", () => {
    const strip = piece("s1", 0);
    const both = withPaper(withChoice(plan, strip, { tuck: 0.25, cut: "whole" }), strip, dots);
    expect(choiceOf(both, strip)).toEqual({ tuck: 0.25, cut: "whole", paper: dots });
  });

  it("gives a unit its own paper, and both pages one ground", () => {
    const unit = piece("g1", 0, { unit: "1/2" });
    expect(choiceOf(withPaper(plan, unit, dots), unit).units).toEqual({ "1/2": dots });
    const grounds = [piece(null, 0), piece(null, 1)];
    const all = withPaperForAll(plan, grounds, grounds[0] as PaperedPieceDoc, dots);
    expect(all.papers?.ground).toEqual({ "0": dots, "1": dots });
  });

  it("guts a piece and leaves it whole again", () => {
    const ground = piece(null, 0);
    const gutted = withGutted(plan, ground, true);
    expect(isGutted(gutted, ground)).toBe(true);
    expect(isGutted(withGutted(gutted, ground, false), ground)).toBe(false);
  });

  it("counts a side once, however often it is used", () => {
    const pieces = [
      piece("a", 0, { paper: dots }),
      piece("b", 0, { paper: dots }),
      piece("c", 0, { paper: { item: "dots" } }),
    ];
    expect(papersUsed(pieces)).toBe(2);
  });
});
