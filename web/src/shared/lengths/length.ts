// The twin of the core's lengths, for display and typing only: the same table of cases tests both.

export type Unit = "in" | "mm";

/** Ticks in one of a unit: 1 tick = 1/8 micrometre. */
export const TICKS: Record<Unit, number> = { in: 203_200, mm: 8_000 };

/** The longest length that is read: 100 m. */
const LIMIT = 800_000_000;
const ALLOWED = "a length such as 3 3/8, 3.375 in, 86 mm or 8,6 cm";

export type Parsed = { ticks: number } | { error: string };

const GLYPHS: Record<string, string> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
  "⅓": "1/3",
  "⅔": "2/3",
  "⁄": "/",
  "\u00a0": " ",
  "\u2009": " ",
  "\u202f": " ",
  "″": '"',
  "”": '"',
  "“": '"',
};

/** Replaces fraction glyphs and the marks that keyboards produce by plain characters. */
function spellOut(text: string): string {
  let plain = "";
  for (const c of text.trim()) {
    const glyph = GLYPHS[c] ?? c;
    if (glyph.length === 3 && /[0-9]$/.test(plain)) plain += " ";
    plain += glyph;
  }
  return plain;
}

function unitTicks(unit: string, fallback: Unit): number | undefined {
  switch (unit.toLowerCase()) {
    case "":
      return TICKS[fallback];
    case "in":
    case "in.":
    case "inch":
    case "inches":
    case '"':
    case "''":
      return TICKS.in;
    case "mm":
      return TICKS.mm;
    case "cm":
      return TICKS.mm * 10;
    default:
      return undefined;
  }
}

/** The value of `3 3/8`, `3-3/8`, `3/8`, `3.375` or `8,6`, or what was found wrong. */
function numberOf(text: string): number | string {
  if (text === "") return "there is no number";
  const mixed = /^(?:([0-9]*)[ -][ -]*)?([0-9]*) *\/ *([0-9]*)$/.exec(text);
  if (mixed) {
    const [, whole, top, bottom] = mixed;
    if (whole === "") return "“” is not a whole number before a fraction";
    if (!top) return `“${top}” is not the top of a fraction`;
    if (!bottom) return `“${bottom}” is not the bottom of a fraction`;
    if (Number(bottom) === 0) return "a fraction over 0";
    return Number(whole ?? 0) + Number(top) / Number(bottom);
  }
  if (/[ -]/.test(text))
    return `“${text.replace(/^[^ -]*[ -]+/, "")}” after ${text.split(/[ -]/)[0]} is not a fraction`;
  if (!/^(?:[0-9]+[.,]?[0-9]*|[.,][0-9]+)$/.test(text)) return `“${text}” is not a number`;
  return Number(text.replace(",", "."));
}

/** Reads a length as makers write it. A text without a unit is taken in `fallback`. */
export function parseLength(text: string, fallback: Unit): Parsed {
  const fail = (found: string): Parsed => ({ error: `“${text}”: ${found}; allowed is ${ALLOWED}` });
  const plain = spellOut(text);
  const negative = /^[-−]/.test(plain);
  const rest = negative ? plain.slice(1).trimStart() : plain;
  const end = rest.search(/[^0-9.,/ -]/);
  const number = end < 0 ? rest : rest.slice(0, end);
  const unit = end < 0 ? "" : rest.slice(end).trim();
  const each = unitTicks(unit, fallback);
  if (each === undefined) return fail(`“${unit}” is not a unit`);
  const value = numberOf(number.trim());
  if (typeof value === "string") return fail(value);
  const size = Math.round(value * each);
  if (size > LIMIT) return fail("it is longer than 100 m");
  return { ticks: negative && size !== 0 ? -size : size };
}

/** The parts of a length as it is printed: sign, whole number or decimal, and a fraction to be set as one. */
export type Parts = { sign: "" | "-"; whole: string; fraction: string };

/** Ticks of a decimal number of a unit. */
export function toTicks(value: number, unit: Unit): number {
  return Math.round(value * TICKS[unit]);
}

/** A decimal number of a unit, as documents hold it. */
export function fromTicks(ticks: number, unit: Unit): number {
  return ticks / TICKS[unit];
}

/** As a ruler shows it: the nearest 1/64 in, or the nearest tenth of a millimetre. */
export function rulerParts(ticks: number, unit: Unit): Parts {
  const finest = unit === "in" ? TICKS.in / 64 : TICKS.mm / 10;
  const rounded = Math.floor(ticks / finest + 0.5) * finest;
  const sign = rounded < 0 ? "-" : "";
  const size = Math.abs(rounded);
  if (unit === "mm") {
    const decimal = (size / TICKS.mm).toFixed(1).replace(/\.0$/, "");
    return { sign, whole: decimal, fraction: "" };
  }
  const sixtyFourths = Math.round(size / (TICKS.in / 64));
  const whole = Math.floor(sixtyFourths / 64);
  let top = sixtyFourths % 64;
  let bottom = 64;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const fraction = top === 0 ? "" : `${top}/${bottom}`;
  return { sign, whole: whole === 0 && fraction ? "" : String(whole), fraction };
}

/** As plain text, without the unit: `3 3/8`, `86.5`. */
export function rulerText(ticks: number, unit: Unit): string {
  const { sign, whole, fraction } = rulerParts(ticks, unit);
  return sign + [whole, fraction].filter(Boolean).join(" ");
}
