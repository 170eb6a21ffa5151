import { describe, expect, it } from "vitest";
import cases from "../../../../crates/core/tests/lengths.json";
import { parseLength, rulerText, type Unit } from "./length";

describe("lengths as makers write them", () => {
  it("has a table of cases that is not empty", () => {
    expect(cases.read.length).toBeGreaterThan(30);
    expect(cases.refused.length).toBeGreaterThan(10);
    expect(cases.ruler.length).toBeGreaterThan(10);
  });

  it.each(cases.read)("reads “$text”", ({ text, unit, ticks }) => {
    expect(parseLength(text, unit as Unit)).toEqual({ ticks });
  });

  it.each(cases.refused)("refuses “$text” and says why", ({ text, unit, says }) => {
    const parsed = parseLength(text, unit as Unit);
    expect("error" in parsed ? parsed.error : "").toContain(says);
  });

  it.each(cases.ruler)("prints $ticks ticks as $text $unit", ({ ticks, unit, text }) => {
    expect(rulerText(ticks, unit as Unit)).toBe(text);
  });
});
