// Choices of the Papers station as pure functions from one plan to the next.

import type { DieChoiceDoc, PaperedPieceDoc, PaperRefDoc, PieceChoiceDoc, PlanDoc } from "@/api/client";
import type { StashById } from "@/features/stash/looks";

type Papers = NonNullable<PlanDoc["papers"]>;

const withSection = (plan: PlanDoc, section: Partial<Papers>): PlanDoc => ({
  ...plan,
  papers: { ...plan.papers, ...section } as Papers,
});

/** What is decided about a piece; of a ground its paper alone. */
export function choiceOf(plan: PlanDoc, piece: PaperedPieceDoc): PieceChoiceDoc {
  if (!piece.of) {
    const paper = plan.papers?.ground?.[String(piece.page)];
    return paper ? { paper } : {};
  }
  return plan.papers?.pieces?.[piece.of]?.[String(piece.part ?? 0)] ?? {};
}

/** A piece decided otherwise. A field that is set to `undefined` goes. */
export function withChoice(
  plan: PlanDoc,
  piece: PaperedPieceDoc,
  change: { [F in keyof PieceChoiceDoc]?: PieceChoiceDoc[F] | undefined },
): PlanDoc {
  const changed = Object.fromEntries(
    Object.entries({ ...choiceOf(plan, piece), ...change }).filter(
      ([, value]) => value !== undefined && value !== null,
    ),
  ) as PieceChoiceDoc;
  if (!piece.of) {
    const { [String(piece.page)]: _, ...others } = plan.papers?.ground ?? {};
    return withSection(plan, {
      ground: changed.paper ? { ...others, [String(piece.page)]: changed.paper } : others,
    });
  }
  const pieces = plan.papers?.pieces ?? {};
  const parts = pieces[piece.of] ?? {};
  return withSection(plan, {
    pieces: { ...pieces, [piece.of]: { ...parts, [String(piece.part ?? 0)]: changed } },
  });
}

/** A piece gets a paper: a unit of a grid or ring its own, a ground both pages' where neither had one. */
export function withPaper(plan: PlanDoc, piece: PaperedPieceDoc, paper: PaperRefDoc | undefined): PlanDoc {
  if (piece.of && piece.unit) {
    const { [piece.unit]: _, ...others } = choiceOf(plan, piece).units ?? {};
    return withChoice(plan, piece, { units: paper ? { ...others, [piece.unit]: paper } : others });
  }
  return withChoice(plan, piece, { paper });
}

/** Every piece of a block, or both grounds, in one paper. */
export function withPaperForAll(
  plan: PlanDoc,
  pieces: readonly PaperedPieceDoc[],
  like: PaperedPieceDoc,
  paper: PaperRefDoc,
): PlanDoc {
  const alike = pieces.filter((p) => (like.of ? p.of === like.of : !p.of));
  return alike.reduce((changed, p) => withPaper(changed, { ...p, unit: null }, paper), plan);
}

/** Whether a piece's hidden middle is taken out. */
export const isGutted = (plan: PlanDoc, piece: PaperedPieceDoc) =>
  plan.papers?.gut?.from?.includes(piece.name) ?? false;

export function withGutted(plan: PlanDoc, piece: PaperedPieceDoc, gutted: boolean): PlanDoc {
  const others = (plan.papers?.gut?.from ?? []).filter((name) => name !== piece.name);
  return withSection(plan, { gut: { ...plan.papers?.gut, from: gutted ? [...others, piece.name] : others } });
}

/** Shapes of a die are cut out of a hidden middle, or all of it again. */
export function withDie(plan: PlanDoc, piece: PaperedPieceDoc, die: DieChoiceDoc | undefined): PlanDoc {
  const { [piece.name]: _, ...others } = plan.papers?.gut?.dies ?? {};
  return withSection(plan, { gut: { ...plan.papers?.gut, dies: die ? { ...others, [piece.name]: die } : others } });
}

/** Things of which a page wants more than it holds: how many lack, and which pages hold the others. */
export function lackingOf(needed: Record<string, number>, stash: StashById, page: string) {
  return Object.entries(needed).flatMap(([id, count]) => {
    const thing = stash.get(id);
    const own = thing?.holds.find((h) => h.page === page);
    const lacks = thing && own ? own.wanted - own.held : 0;
    if (!thing || lacks <= 0) return [];
    const others = thing.holds.filter((h) => h.page !== page && h.held > 0).map((h) => h.name);
    return [{ id, name: thing.item.name, count, lacks, others }];
  });
}

/** Every piece of one thing of the stash gets another paper in its place. */
export function withInstead(
  plan: PlanDoc,
  pieces: readonly PaperedPieceDoc[],
  item: string,
  paper: PaperRefDoc,
): PlanDoc {
  return pieces.filter((p) => p.paper?.item === item).reduce((changed, p) => withPaper(changed, p, paper), plan);
}

/** The same paper, on the same side. */
export const isSamePaper = (a: PaperRefDoc | null | undefined, b: PaperRefDoc | null | undefined) =>
  a?.item === b?.item && (a?.side ?? "a") === (b?.side ?? "a");

/** How many different papers lie on a page. */
export function papersUsed(pieces: readonly PaperedPieceDoc[]): number {
  return new Set(pieces.flatMap((p) => (p.paper ? [`${p.paper.item}:${p.paper.side ?? "a"}`] : []))).size;
}

/** How much a rule of the choice counts; as much as usual is left out. */
export function withWeight(plan: PlanDoc, rule: string, counts: number): PlanDoc {
  const { [rule]: _, ...others } = plan.papers?.weights ?? {};
  const weights = counts === 1 ? others : { ...others, [rule]: counts };
  return withSection(plan, { weights: Object.keys(weights).length > 0 ? weights : null });
}

/** Two units change their papers. */
export function withSwapped(plan: PlanDoc, piece: PaperedPieceDoc, a: string, b: string): PlanDoc {
  const units = { ...choiceOf(plan, piece).units };
  const [ofA, ofB] = [units[a], units[b]];
  for (const [unit, paper] of [
    [a, ofB],
    [b, ofA],
  ] as const) {
    if (paper) units[unit] = paper;
    else delete units[unit];
  }
  return withChoice(plan, piece, { units });
}
