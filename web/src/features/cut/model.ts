// The Cut station as pure functions: parts of a sheet, what comes next, and ticks that make one plan out of another.

import type {
  BegunSheetDoc,
  CutCureDoc,
  CutSheetDoc,
  CutStepDoc,
  ListedCutDoc,
  PageCutsDoc,
  PieceLockDoc,
  PlanDoc,
} from "@/api/client";

export type Area = { x: number; y: number; w: number; h: number };

/** Where each part of a sheet lies, by its name. */
export function partsOf(sheet: BegunSheetDoc): ReadonlyMap<string, Area> {
  const parts = new Map<string, Area>([["whole", { x: 0, y: 0, w: sheet.w, h: sheet.h }]]);
  for (const cut of sheet.cuts) {
    const part = parts.get(cut.part);
    const [first, second] = cut.makes;
    if (!part || !first || !second) continue;
    const { x, y, w, h } = part;
    const [a, b] =
      cut.along === "x"
        ? [
            { x, y, w, h: cut.at },
            { x, y: y + cut.at, w, h: h - cut.at },
          ]
        : [
            { x, y, w: cut.at, h },
            { x: x + cut.at, y, w: w - cut.at, h },
          ];
    parts.set(first, a);
    parts.set(second, b);
  }
  return parts;
}

/** Where a cut runs on its sheet. */
export function lineOf(sheet: BegunSheetDoc, parts: ReadonlyMap<string, Area>, cut: number) {
  const made = sheet.cuts[cut];
  const part = made && parts.get(made.part);
  if (!made || !part) return undefined;
  return made.along === "x"
    ? { x1: part.x, y1: part.y + made.at, x2: part.x + part.w, y2: part.y + made.at }
    : { x1: part.x + made.at, y1: part.y, x2: part.x + made.at, y2: part.y + part.h };
}

/** The stash's thing that a sheet is of: a rest, or the hidden middle of a ground, is named by what it comes from. */
export const thingOf = (sheet: BegunSheetDoc) => sheet.item.split("#")[0] ?? sheet.item;

/** A sheet as a plan keeps it. */
export function asKept({ steps: _, used: __, ...sheet }: CutSheetDoc): BegunSheetDoc {
  return sheet;
}

export const isSame = (a: BegunSheetDoc, b: BegunSheetDoc) => a.item === b.item && a.copy === b.copy;

/** The step that a sheet is at, by its place; past the last when all is cut. */
export function stepAt(sheet: CutSheetDoc): number {
  const at = sheet.steps.findIndex((s) => sheet.done < s.first + s.times);
  return at < 0 ? sheet.steps.length : at;
}

/** The first sheet that is not cut to the end. */
export function nextSheet(sheets: readonly CutSheetDoc[]): number {
  return sheets.findIndex((s) => s.done < s.cuts.length);
}

/** Sheets as the plan has them at this moment: ticks are seen at once, before what follows from them is there. */
export function asTicked(sheets: readonly CutSheetDoc[], plan: PlanDoc): CutSheetDoc[] {
  return sheets.map((sheet) => {
    const begun = plan.cut?.begun?.find((b) => isSame(b, sheet));
    return { ...sheet, done: begun?.done ?? 0, wrong: begun?.wrong ?? [] };
  });
}

function withSheet(plan: PlanDoc, sheet: BegunSheetDoc): PlanDoc {
  const begun = plan.cut?.begun ?? [];
  const others = begun.some((b) => isSame(b, sheet))
    ? begun.map((b) => (isSame(b, sheet) ? sheet : b))
    : [...begun, sheet];
  // What no cut is made of is planned anew with the rest.
  return { ...plan, cut: { ...plan.cut, begun: others.filter((b) => b.done > 0) } };
}

/** So many cuts of a sheet are made. */
export function withDone(plan: PlanDoc, sheet: CutSheetDoc, done: number): PlanDoc {
  const held = Math.min(Math.max(done, 0), sheet.cuts.length);
  const kept = asKept(sheet);
  const madeBy = (name: string) => {
    const part = kept.pieces.find((p) => p.name === name)?.part;
    return kept.cuts.findIndex((c) => c.makes.includes(part ?? ""));
  };
  return withSheet(plan, { ...kept, done: held, wrong: kept.wrong.filter((name) => madeBy(name) < held) });
}

/** A piece of a sheet was cut wrong: it is planned anew. */
export function withWrong(plan: PlanDoc, sheet: CutSheetDoc, piece: string): PlanDoc {
  const kept = asKept(sheet);
  return withSheet(plan, { ...kept, wrong: [...kept.wrong.filter((n) => n !== piece), piece] });
}

/** Pieces that the cuts made so far have finished, the last one first. */
export function finished(sheet: BegunSheetDoc): string[] {
  const names = sheet.cuts
    .slice(0, sheet.done)
    .flatMap((c) => c.makes.flatMap((part) => sheet.pieces.filter((p) => p.part === part).map((p) => p.name)));
  return names.reverse();
}

/** How a part is turned so that the edge it is measured from lies at the stop, at the left. */
export type Turn = "none" | "top" | "right" | "bottom";

export function turnFor(step: CutStepDoc): Turn {
  if (step.along === "x") return step.from_far_edge ? "bottom" : "top";
  return step.from_far_edge ? "right" : "none";
}

const COUNTS = ["once", "twice", "three times", "four times", "five times", "six times", "seven times", "eight times"];

/** How often a step is cut, in words. */
export const howOften = (times: number) => COUNTS[times - 1] ?? `${times} times`;

const PLACES = ["First", "Second", "Third", "Fourth", "Fifth", "Sixth", "Seventh", "Eighth"];

export const whichOne = (n: number) => PLACES[n] ?? `${n + 1}th`;

export type Preference = "largest-rest" | "few-settings";

/** What counts more among plans that open the same sheets. */
export const preferenceOf = (plan: PlanDoc): Preference =>
  plan.cut?.prefers === "few-settings" ? "few-settings" : "largest-rest";

export function withPreference(plan: PlanDoc, prefers: Preference): PlanDoc {
  if (preferenceOf(plan) === prefers) return plan;
  return { ...plan, cut: { ...plan.cut, prefers } };
}

/** What two plans are compared by. */
export function countsOf(cuts: PageCutsDoc) {
  const sheets = cuts.sheets.filter((s) => s.cuts.length > 0);
  const rests = sheets.flatMap((s) => s.rests);
  const rest = rests.reduce<Area | undefined>(
    (best, r) => (best && best.w * best.h >= r.w * r.h ? best : r),
    undefined,
  );
  return {
    opened: cuts.sheets.filter((s) => s.item === thingOf(s)).length,
    settings: sheets.reduce((sum, s) => sum + s.steps.length, 0),
    rest,
    short: cuts.short.length,
  };
}

/** What is held of a piece's place. */
export const lockOf = (plan: PlanDoc, piece: string): PieceLockDoc => plan.cut?.locks?.[piece] ?? {};

export function withLock(
  plan: PlanDoc,
  piece: string,
  lock: { from?: string | null | undefined; upright?: boolean | null | undefined },
): PlanDoc {
  const { [piece]: _, ...others } = plan.cut?.locks ?? {};
  const held: PieceLockDoc = {
    ...(lock.from ? { from: lock.from } : {}),
    ...(lock.upright ? { upright: true } : {}),
  };
  const locks = Object.keys(held).length > 0 ? { ...others, [piece]: held } : others;
  return { ...plan, cut: { ...plan.cut, locks } };
}

/** A way out of a shortage, taken: its change of the papers section is merged in, choice by choice. */
export function withCure(plan: PlanDoc, cure: CutCureDoc): PlanDoc {
  const changes = (cure.patch as { pieces?: Record<string, Record<string, object>> } | null)?.pieces ?? {};
  const pieces = { ...plan.papers?.pieces };
  for (const [block, parts] of Object.entries(changes)) {
    const own = { ...pieces[block] };
    for (const [part, change] of Object.entries(parts)) own[part] = { ...own[part], ...change };
    pieces[block] = own;
  }
  return { ...plan, papers: { ...plan.papers, pieces } };
}

/** What pieces are called on this station: a block's number and kind, a unit's place. */
export function labels(list: readonly ListedCutDoc[], numbers: ReadonlyMap<string, string>) {
  return new Map(
    list.map((piece) => {
      if (piece.block.startsWith("ground-")) return [piece.name, "ground"] as const;
      const number = numbers.get(piece.block) ?? piece.block;
      const unit = piece.name.split("/").slice(2).join("/");
      return [piece.name, unit ? `${number} · ${unit}` : number] as const;
    }),
  );
}
