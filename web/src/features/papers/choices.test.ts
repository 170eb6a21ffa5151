import { describe, expect, it } from "vitest";
import type { PaperedPieceDoc, PlanDoc, StashItemView } from "@/api/client";
import { looksBehind } from "@/features/stash/looks";
import { lackingOf, withDie, withInstead } from "./model";

const thing = (name: string, more: object = {}, holds: object[] = []) =>
  ({
    item: { name, kind: "sheet", unit: "in", a: { colours: [{ colour: "#112233" }] }, ...more },
    holds,
  }) as unknown as StashItemView;

const piece = (name: string, item: string) =>
  ({ name, of: name.split("/")[0], part: 0, unit: null, page: 0, paper: { item } }) as unknown as PaperedPieceDoc;

const plan = {
  papers: {
    ground: { "0": { item: "film" } },
    pieces: { s1: { "0": { paper: { item: "dots" } } }, n1: { "0": { paper: { item: "dots" }, twin: true } } },
  },
} as unknown as PlanDoc;

describe("choices of the Papers station", () => {
  it("cuts shapes of a die out of a middle, and all of it again", () => {
    const ground = { name: "ground-0" } as PaperedPieceDoc;
    const die = { tool: "kite", size: { w: 2, h: 3 }, count: 2 };
    const cut = withDie(plan, ground, die);
    expect(cut.papers?.gut?.dies).toEqual({ "ground-0": die });
    expect(withDie(cut, ground, undefined).papers?.gut?.dies).toEqual({});
  });

  it("takes another paper for every piece that wants one that is gone", () => {
    const next = withInstead(plan, [piece("s1/0", "dots"), piece("n1/0", "dots")], "dots", { item: "waves" });
    expect(next.papers?.pieces?.s1?.["0"]?.paper).toEqual({ item: "waves" });
    expect(next.papers?.pieces?.n1?.["0"]?.paper).toEqual({ item: "waves" });
  });

  it("tells what another page holds of what is lacking", () => {
    const holds = [
      { page: "own", name: "Own", held: 1, wanted: 3 },
      { page: "other", name: "Lanterns", held: 1, wanted: 1 },
    ];
    const stash = new Map([["dots", thing("Dots", {}, holds)]]);
    expect(lackingOf({ dots: 3 }, stash, "own")).toEqual([
      { id: "dots", name: "Dots", count: 3, lacks: 2, others: ["Lanterns"] },
    ]);
  });

  it("shows other sides from behind, and twins as they are", () => {
    const stash = new Map([
      ["dots", thing("Dots", { b: { colours: [{ colour: "#aabbcc" }] } })],
      ["film", thing("Film", { kind: "acetate" })],
    ]);
    const looks = looksBehind(plan.papers, stash, "in");
    expect(looks.get("s1/0")?.colour).toBe("#aabbcc");
    expect(looks.get("n1/0")?.colour).toBe("#112233");
    expect(looks.get("ground-0")?.colour).toBe("#112233");
  });
});
