import { describe, expect, it } from "vitest";
import type { LetterTrayDoc, PlanDoc, TitleSettingDoc, WrittenDoc } from "@/api/client";
import {
  forgotten,
  mayUse,
  placeSaid,
  regionOf,
  shownSetting,
  standing,
  withBanner,
  withRemedy,
  withSet,
  withSetting,
  withTitle,
  withWriting,
} from "./model";

const plan = {
  format: "metrosk-plan/2",
  unit: "in",
  words: { mark: "settled", title: { text: "Low sun" } },
} as unknown as PlanDoc;
const setting = (taken: boolean): TitleSettingDoc => ({
  name: "One line of Cork",
  cost: 0,
  lines: [],
  line_gap: 0.25,
  leaves: {},
  made: [],
  last: [],
  uses: { cork: { L: 1 } },
  manner: "lines",
  hint: "",
  is_taken: taken,
  taken: [{ set: "cork", words: 2 }],
});
const written = (over: number): WrittenDoc => ({
  block: "j1",
  space: { x: 1, y: 2, w: 6, h: 1.5 },
  lines: ["a"],
  type: null,
  slots: [],
  widths: [1],
  room: 5,
  kept: 1,
  kept_text: "Saturday",
  over,
  spare: 0,
  words_over: over * 7,
  too_wide: [],
  kept_too_wide: false,
  fits: over === 0,
  pitch: 0.25,
  remedies: [],
});

describe("a page's words", () => {
  it("spend letters when a setting is taken, and give them back when the title changes", () => {
    const taken = withSetting(plan, setting(true));
    expect(taken.words?.title?.uses).toEqual({ cork: { L: 1 } });
    expect(taken.words?.mark).toBe("settled");
    const other = withTitle(taken, { text: "High sun" });
    expect(other.words?.title).toEqual({ text: "High sun" });
  });

  it("keep an empty title, and drop fields that say nothing", () => {
    expect(withTitle(plan, { text: "" }).words?.title).toEqual({ text: "" });
    expect(withWriting(plan, { date: "Saturday", place: "" }).words?.writing).toEqual({ date: "Saturday" });
  });

  it("take a remedy that is theirs to take", () => {
    const smaller = withRemedy(plan, written(2), { what: "pitch", to: 0.1875, text: "" });
    expect(smaller?.words?.writing).toEqual({ pitch: 0.1875 });
    const wider = withRemedy(plan, written(2), { what: "wider", to: 7, text: "" });
    expect(wider?.words?.writing).toEqual({ space: { w: 7, h: 1.5 } });
    expect(withRemedy(plan, written(2), { what: "shorter", to: 9, text: "" })).toBeUndefined();
  });

  it("are told in a line", () => {
    expect(standing({ text: "Low sun" }, setting(false), written(2))).toBe(
      "The title fits. The writing is 2 lines over.",
    );
    expect(standing({ text: "Low sun" }, setting(true), written(0))).toBe("The title is set. The writing fits.");
    expect(standing({ text: "Low sun" }, undefined, null)).toBe("The title can't be set so.");
    expect(standing(undefined, undefined, null)).toBe("There is no title yet.");
  });

  it("show the setting that was taken, unless another is pointed at", () => {
    const all = [setting(false), setting(true)];
    expect(shownSetting(all, undefined)).toBe(1);
    expect(shownSetting(all, 0)).toBe(0);
    expect(shownSetting([setting(false)], 5)).toBe(0);
  });

  it("name what nobody should forget", () => {
    expect(forgotten({ date: "Saturday", place: " " })).toEqual(["place", "names"]);
  });

  it("may use every set until some are left out", () => {
    const trays = [{ id: "cork" }, { id: "pebble" }] as LetterTrayDoc[];
    expect(mayUse({ text: "x" }, "cork")).toBe(true);
    const without = withSet({ text: "x" }, trays, "cork", false);
    expect(without).toEqual(["pebble"]);
    expect(withSet({ text: "x", sets: ["pebble"] }, trays, "cork", true)).toBeUndefined();
  });

  it("are drawn with something of the page round them, within its edges", () => {
    expect(regionOf([{ x: 0.25, y: 10, w: 4, h: 1.5 }], { w: 24, h: 12 }, 1)).toEqual({ x: 0, y: 9, w: 5.25, h: 3 });
  });
});

describe("where words stand", () => {
  const canvas = { page: { w: 12, h: 12 }, pages: 2 };
  const place = (kind: string, block: string | null, x: number, w: number) => ({
    key: "t1",
    kind,
    block,
    page: x < 12 ? 0 : 1,
    box: { x, y: 1, w, h: 1 },
  });

  it("is said as a maker would", () => {
    expect(placeSaid(place("free", null, 13, 5), undefined, canvas)).toBe("where nothing lies, right page");
    expect(placeSaid(place("block", "strip", 2, 18), "3", canvas)).toBe("the strip 3, across the fold");
    expect(placeSaid(place("photo", "photo", 2, 3), "5", canvas)).toBe("on photo 5, beside what stays in sight");
    expect(placeSaid(place("block", "title", 2, 3), "8", { ...canvas, pages: 1 })).toBe("the title block 8");
  });

  it("gets a banner a quarter inch larger under it, once", () => {
    const sketch = {
      format: "metrosk-sketch/1",
      unit: "in",
      name: "x",
      canvas,
      blocks: [
        { id: "p1", kind: "photo", box: { x: 1, y: 1, w: 4, h: 4 } },
        { id: "t1", kind: "title", box: { x: 0.125, y: 6, w: 5, h: 1 } },
      ],
    };
    const before = { format: "metrosk-plan/2", unit: "in", sketch: { mark: "settled", sketch } } as unknown as PlanDoc;
    const after = withBanner(before, "t1");
    const blocks = after?.sketch?.sketch?.blocks ?? [];
    expect(blocks.map((b) => b.kind)).toEqual(["photo", "accent", "title"]);
    expect(blocks[1]?.box).toEqual({ x: 0, y: 5.75, w: 5.375, h: 1.5 });
    expect(after && withBanner(after, "t1")).toBeUndefined();
    expect(withBanner(before, "free-0")).toBeUndefined();
  });
});
