import { describe, expect, it } from "vitest";
import type { FitDoc } from "@/api/client";
import {
  atFold,
  canBreak,
  drawnCorner,
  foldWays,
  gapsOf,
  likeEdges,
  MOST_LETTERS,
  measureOf,
  optionOf,
  pinsBetween,
  rowOf,
  slackValue,
  slotChoiceOf,
  slotOptions,
  titleWords,
  withAcrossFold,
  withAtFold,
  withHeldAt,
  withoutThisPin,
  withPinBetween,
  withSlack,
  withSlot,
} from "./holding";
import { fitOf } from "./testing";

const photo = (id: string, x: number, y: number) => ({ id, kind: "photo", box: { x, y, w: 3, h: 2 } });

const fit = fitOf([photo("p1", 1, 1), photo("p2", 4.25, 1), photo("p3", 7.5, 1), photo("p4", 1, 6)]);
const block = (id: string) => fit.sketch.blocks.find((b) => b.id === id) as FitDoc["sketch"]["blocks"][number];

describe("pins between blocks", () => {
  it("hold a place to a place of the same direction, a size to a size", () => {
    expect(likeEdges("left")).toEqual(["left", "right", "centre-x"]);
    expect(likeEdges("centre-y")).toEqual(["top", "bottom", "centre-y"]);
    expect(measureOf({ x: 1, y: 2, w: 4, h: 6 }, "centre-y")).toBe(5);
    expect(measureOf({ x: 1, y: 2, w: 4, h: 6 }, "right")).toBe(5);
  });

  it("take the place of the same pin and leave all others", () => {
    const pin = { block: "p2", edge: "left", at: 0.5, to: { block: "p1", edge: "right" } };
    const held = withPinBetween({ ...fit, pins: [{ block: "p2", edge: "left", at: 4 }] }, pin);
    const again = withPinBetween(held, { ...pin, at: 1 });
    expect(again.pins?.map((p) => p.at)).toEqual([4, 1]);
    expect(pinsBetween(again, "p1")).toHaveLength(1);
    const last = pinsBetween(again, "p2")[0];
    expect(last && withoutThisPin(again, last).pins).toEqual([{ block: "p2", edge: "left", at: 4 }]);
  });

  it("stay when a block is dragged; its own places go", () => {
    const between = { block: "p2", edge: "left", at: 0.5, to: { block: "p1", edge: "right" } };
    const pins = [between, { block: "p2", edge: "right", at: 8 }, { block: "p2", edge: "width", at: 3 }];
    const dragged = withHeldAt({ ...fit, pins }, "p2", 4.5, 2);
    expect(dragged.pins).toEqual([
      between,
      { block: "p2", edge: "width", at: 3 },
      { block: "p2", edge: "left", at: 4.5 },
      { block: "p2", edge: "top", at: 2 },
    ]);
  });
});

describe("choices for a slot", () => {
  it("know the row that a photo stands in", () => {
    expect(rowOf(fit, block("p2")).map((b) => b.id)).toEqual(["p1", "p2", "p3"]);
    expect(rowOf(fit, block("p4")).map((b) => b.id)).toEqual(["p4"]);
  });

  it("are found again and change how many photos there are", () => {
    const options = slotOptions(fit, block("p4"));
    const four = options.find((o) => o.name === "four");
    const chosen = withSlot(fit, "p4", four?.choice);
    expect(chosen.photos).toEqual({ count: 7 });
    expect(optionOf(options, slotChoiceOf(chosen, "p4"))?.name).toBe("four");
    const back = withSlot(chosen, "p4", undefined);
    expect(back.slots).toBeUndefined();
    expect(back.photos).toBeUndefined();
  });

  it("keep a count that the other slots can still show", () => {
    const options = slotOptions(fit, block("p1"));
    const two = options.find((o) => o.name === "two-across")?.choice;
    expect(withSlot({ ...fit, photos: { count: 6 } }, "p1", two).photos).toEqual({ count: 6 });
  });

  it("of a row name all its photos, and another choice for one of them takes its place", () => {
    const longer = slotOptions(fit, block("p1")).find((o) => o.name === "row-longer")?.choice;
    const row = withSlot(fit, "p1", longer);
    expect(row.photos).toEqual({ count: 5 });
    const paper = slotOptions(fit, block("p2")).find((o) => o.name === "paper")?.choice;
    expect(withSlot(row, "p2", paper).slots).toEqual([{ photos: ["p2"], as: "paper" }]);
  });
});

describe("leftover room and the fold", () => {
  it("goes into a gap between two photos", () => {
    expect(gapsOf(fit)).toEqual([
      ["p1", "p2"],
      ["p2", "p3"],
    ]);
    const into = withSlack(fit, "gap p1 p2");
    expect(into.slack).toEqual({ gap: ["p1", "p2"] });
    expect(slackValue(into)).toBe("gap p1 p2");
    expect(withSlack(into, "best").slack).toBeUndefined();
  });

  it("lets kinds cross the fold one by one", () => {
    const both = withAcrossFold(withAcrossFold(fit, "title", true), "photo", true);
    expect(both.across_fold).toEqual(["title", "photo"]);
    expect(withAcrossFold(withAcrossFold(both, "title", false), "photo", false).across_fold).toBeUndefined();
  });

  it("offers what can become of a block at the fold, and keeps one choice a block", () => {
    expect(foldWays("strip")).toEqual([]);
    expect(foldWays("title").map((w) => w.value)).toEqual(["", "left", "right", "each", "across"]);
    expect(foldWays("journal").map((w) => w.value)).toContain("pair");
    const each = withAtFold(withAtFold(fit, "t1", "left"), "t1", "each");
    expect(each.at_fold).toEqual([{ block: "t1", as: "each" }]);
    expect(atFold(each, "t1")).toBe("each");
    expect(withAtFold(each, "t1", "").at_fold).toBeUndefined();
    expect(atFold(fit, "t1")).toBe("");
  });

  it("breaks a title between two of its words", () => {
    const across = withAtFold(fit, "t1", "across", "Kites over the flat");
    expect(across.at_fold).toEqual([{ block: "t1", as: "across", words: "Kites over the flat" }]);
    expect(titleWords(across, "t1")).toBe("Kites over the flat");
    expect(titleWords(fit, "t1")).toBe("");
    expect(titleWords(withAtFold(across, "t1", "each"), "t1")).toBe("");
    expect(["Low sun", " Low  sun "].every(canBreak)).toBe(true);
    expect(["", "Kites", "  Kites ", `a ${"b".repeat(MOST_LETTERS)}`].some(canBreak)).toBe(false);
  });

  it("doubles a photo on a spread only, and counts both", () => {
    const block = fit.sketch.blocks.find((b) => b.id === "p1");
    if (!block) throw new Error("no p1");
    const spread = { ...fit, target: { ...fit.target, pages: 2 } };
    expect(slotOptions({ ...fit, target: { ...fit.target, pages: 1 } }, block).some((o) => o.name === "each")).toBe(
      false,
    );
    const each = slotOptions(spread, block).find((o) => o.name === "each")?.choice;
    const drawn = spread.sketch.blocks.filter((b) => b.kind === "photo").length;
    expect(withSlot(spread, "p1", each).photos).toEqual({ count: drawn + 1 });
  });

  it("keeps the count that she asked for when a slot's choice goes, and drops the one that came with it", () => {
    const block = fit.sketch.blocks.find((b) => b.id === "p1");
    if (!block) throw new Error("no p1");
    const { photos: _, slots: __, ...plain } = fit;
    const drawn = plain.sketch.blocks.filter((b) => b.kind === "photo").length;
    const two = slotOptions(plain, block).find((o) => o.name === "two-across")?.choice;
    const alone = withSlot(plain, "p1", two);
    expect(alone.photos).toEqual({ count: drawn + 1 });
    expect(withSlot(alone, "p1", undefined).photos).toBeUndefined();
    const asked = withSlot({ ...plain, photos: { count: drawn + 4 } }, "p1", two);
    expect(asked.photos).toEqual({ count: drawn + 4 });
    expect(withSlot(asked, "p1", undefined).photos).toEqual({ count: drawn + 4 });
  });

  it("finds the drawn corner of a page that is turned or flipped", () => {
    expect(drawnCorner(fit, "top-left")).toBe("top-left");
    // A quarter clockwise brings the drawn bottom left to the top left.
    expect(drawnCorner({ ...fit, turn: 90 }, "top-left")).toBe("bottom-left");
    expect(drawnCorner({ ...fit, turn: 180 }, "top-left")).toBe("bottom-right");
    expect(drawnCorner({ ...fit, flip: "across" }, "bottom-left")).toBe("bottom-right");
    expect(drawnCorner({ ...fit, turn: 90, flip: "down" }, "top-left")).toBe("bottom-right");
  });

  it("lengthens a row along the side it lies on", () => {
    const block = fit.sketch.blocks.find((b) => b.id === "p1");
    if (!block) throw new Error("no p1");
    const longer = (of: FitDoc) => slotOptions(of, block).find((o) => o.name === "row-longer")?.choice;
    const upright = longer(fit);
    expect([upright?.rows, longer({ ...fit, turn: 90 })?.cols]).toEqual([1, 1]);
    expect(longer({ ...fit, turn: 90 })?.rows).toBe(upright?.cols);
  });
});
