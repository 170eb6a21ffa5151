// Clusters, findings and cures as pure functions.

import type {
  BoxDoc,
  ClusterChoiceDoc,
  ClusterPieceDoc,
  ClustersSectionDoc,
  FitDoc,
  LaidClusterDoc,
  LayoutDoc,
  PageCureDoc,
  PageFindingDoc,
  PlanDoc,
} from "@/api/client";
import { type PinEdge, withPin } from "@/features/fit/model";
import { patched } from "@/features/plan/patch";

/** A finding's letter: A, B, … Z, then AA. */
export function letterOf(n: number): string {
  const last = String.fromCharCode(65 + (n % 26));
  return n < 26 ? last : letterOf(Math.floor(n / 26) - 1) + last;
}

/** What each check is called, in the order in which they are listed. */
export const CHECKS: readonly (readonly [string, string])[] = [
  ["trapped", "paper that is shut in"],
  ["near", "edges that nearly agree"],
  ["in-sight", "faces and words in sight"],
  ["hidden", "what should be hidden"],
  ["thickness", "thickness"],
  ["contrast", "titles and photos that sink in"],
  ["busy", "busy on busy"],
  ["triangle", "the triangle"],
  ["alone", "colours that stand alone"],
  ["weight", "weight left and right"],
  ["white", "white space"],
  ["mats", "even mats"],
  ["at-edge", "words near the edge"],
  ["call", "what the call asks for"],
];

export const checkName = (what: string) => CHECKS.find(([name]) => name === what)?.[1] ?? what;

/** Why each check matters. */
export const WHY: Record<string, string> = {
  trapped: "The eye stops at a hole that nothing explains; open to the edge, or filled, it rests.",
  near: "Nearly in line looks like a slip; in line or clearly apart looks meant.",
  "in-sight": "You marked it as what matters there.",
  hidden: "You marked it as what should not be seen.",
  thickness: "A page that is too thick bends its neighbours and presses into their photos.",
  contrast: "What has no edge against its ground is overlooked.",
  busy: "Two patterns that both want to lead tire the eye.",
  triangle: "Three places that are no line keep the eye on the page. Some makers like a line: then switch this off.",
  alone: "A strong colour that is seen once looks like a slip; twice, it looks meant.",
  weight: "A page that is much heavier on one side tips. If you mean it so, let it be.",
  white: "A page needs something to look at, and somewhere to rest.",
  mats: "A border that is a hair wider on one side looks like a slip of the knife.",
  "at-edge": "Protectors have a seam, and hands hold pages there.",
  call: "It counts when the page is judged.",
};

/** Where a finding is to be seen: its own place, or a line through both edges. */
export function placeOf(finding: PageFindingDoc, layout: LayoutDoc): BoxDoc | undefined {
  if (finding.box) return finding.box;
  const boxes = finding.blocks.flatMap((id) => layout.blocks.filter((b) => b.id === id).map((b) => b.box));
  const [a, b] = boxes;
  if (!a) return undefined;
  if (!b || !finding.edge) return finding.edge ? undefined : a;
  const across = finding.edge === "left" || finding.edge === "right";
  const at = (box: BoxDoc) => {
    if (finding.edge === "left") return box.x;
    if (finding.edge === "right") return box.x + box.w;
    return finding.edge === "top" ? box.y : box.y + box.h;
  };
  const [from, to] = [Math.min(at(a), at(b)), Math.max(at(a), at(b))];
  if (across) {
    const top = Math.min(a.y, b.y);
    return { x: from, y: top, w: to - from, h: Math.max(a.y + a.h, b.y + b.h) - top };
  }
  const left = Math.min(a.x, b.x);
  return { x: left, y: from, w: Math.max(a.x + a.w, b.x + b.w) - left, h: to - from };
}

const HAIR = 1e-6;

/** The fit with a block held where a cure wants it: each edge that the cure moves is pinned. Nothing where the block is no block of the
 * sketch by itself. */
export function withCure(fit: FitDoc, layout: LayoutDoc, cure: Pick<PageCureDoc, "block" | "box">): FitDoc | undefined {
  const block = layout.blocks.find((b) => b.id === cure.block);
  const of = block?.from[0];
  const to = cure.box;
  if (!to || !block || !of || block.from.length !== 1 || layout.blocks.filter((b) => b.from[0] === of).length !== 1) {
    return undefined;
  }
  const edges = (b: BoxDoc): [PinEdge, number][] => [
    ["left", b.x],
    ["top", b.y],
    ["right", b.x + b.w],
    ["bottom", b.y + b.h],
  ];
  const before = new Map(edges(block.box));
  const moved = edges(to).filter(([edge, at]) => Math.abs(at - (before.get(edge) ?? at)) > HAIR);
  return moved.reduce((pinned, [edge, at]) => withPin(pinned, of, edge, at), fit);
}

/** The fit with both blocks of a near miss held to one line, wherever that comes to lie. Nothing where both are the same block of the sketch,
 * or the fit can't hold one of them. */
export function inLine(fit: FitDoc, layout: LayoutDoc, finding: PageFindingDoc): FitDoc | undefined {
  const [first, second] = finding.blocks.map((id) => layout.blocks.find((b) => b.id === id)?.from);
  const [to, block] = [first?.[0], second?.[0]];
  const { edge } = finding;
  if (!to || !block || !edge || to === block || first?.length !== 1 || second?.length !== 1) return undefined;
  return { ...fit, pins: [...(fit.pins ?? []), { block, edge, at: 0, to: { block: to, edge } }] };
}

/** The layout as a cure would have it, for a look beforehand. */
export function layoutWith(layout: LayoutDoc, cure: Pick<PageCureDoc, "block" | "box">): LayoutDoc {
  const to = cure.box;
  if (!to) return layout;
  if (cure.block) {
    const blocks = layout.blocks.map((b) => (b.id === cure.block ? { ...b, box: to } : b));
    return { ...layout, blocks };
  }
  const page = layout.canvas.pages === 2 && to.x + to.w / 2 > layout.canvas.page.w ? 1 : 0;
  const accent = { id: "cure", from: [], kind: "accent", page, box: to } as unknown as LayoutDoc["blocks"][number];
  return { ...layout, blocks: [...layout.blocks, accent] };
}

type Key = Pick<LaidClusterDoc, "of" | "part">;

/** The clusters section with some of it changed. */
export const withSection = (plan: PlanDoc, patch: object): PlanDoc => patched(plan, { clusters: patch });

/** What is decided about a cluster. */
export function choiceOf(plan: PlanDoc, { of, part }: Key): ClusterChoiceDoc {
  return plan.clusters?.clusters?.[of]?.[String(part)] ?? {};
}

/** The plan with something else decided about a cluster. */
export function withChoice(plan: PlanDoc, { of, part }: Key, change: Partial<ClusterChoiceDoc>): PlanDoc {
  return withSection(plan, { clusters: { [of]: { [String(part)]: change } } });
}

export const piecesOf = (plan: PlanDoc, key: Key): readonly ClusterPieceDoc[] => choiceOf(plan, key).pieces ?? [];

/** The plan with a piece more on top of a cluster. */
export const withPiece = (plan: PlanDoc, key: Key, item: string): PlanDoc =>
  withChoice(plan, key, { pieces: [...piecesOf(plan, key), { item }] });

/** The plan with a piece of a cluster changed; fields that are undefined go. */
export function withPieceChanged(plan: PlanDoc, key: Key, at: number, change: Partial<ClusterPieceDoc>): PlanDoc {
  const says = ([, value]: [string, unknown]) => value !== undefined && value !== null;
  const pieces = piecesOf(plan, key).map((p, n) =>
    n === at ? (Object.fromEntries(Object.entries({ ...p, ...change }).filter(says)) as ClusterPieceDoc) : p,
  );
  return withChoice(plan, key, { pieces });
}

/** The plan without a piece of a cluster. */
export const withoutPiece = (plan: PlanDoc, key: Key, at: number): PlanDoc =>
  withChoice(plan, key, { pieces: piecesOf(plan, key).filter((_, n) => n !== at) });

/** The plan with a piece one higher (1) or lower (-1) in its stack; nothing where there is no such place. */
export function withPieceMoved(plan: PlanDoc, key: Key, at: number, by: -1 | 1): PlanDoc | undefined {
  const pieces = [...piecesOf(plan, key)];
  const [own, other] = [pieces[at], pieces[at + by]];
  if (!own || !other) return undefined;
  pieces[at] = other;
  pieces[at + by] = own;
  return withChoice(plan, key, { pieces });
}

/** The plan with every cluster's pieces that nobody holds laid another way. */
export function shuffled(plan: PlanDoc, clusters: readonly Key[]): PlanDoc {
  return clusters.reduce((p, key) => withChoice(p, key, { seed: (choiceOf(p, key).seed ?? 0) + 1 }), plan);
}

const listed = (plan: PlanDoc, field: "off" | "passed") => plan.clusters?.[field] ?? [];

/** Whether she let a finding be. */
export const isPassed = (plan: PlanDoc, key: string) => listed(plan, "passed").includes(key);

/** The plan with a finding let be. */
export const withPassed = (plan: PlanDoc, key: string): PlanDoc =>
  withSection(plan, { passed: [...listed(plan, "passed").filter((k) => k !== key), key] });

/** The plan with a check switched off for this page, or on again. */
export function withCheck(plan: PlanDoc, what: string, on: boolean): PlanDoc {
  const off = listed(plan, "off").filter((n) => n !== what);
  return withSection(plan, { off: on ? off : [...off, what] });
}

export const isOff = (section: ClustersSectionDoc | null | undefined, what: string) =>
  (section?.off ?? []).includes(what);

/** How many of each thing a page's clusters take. */
export function takenByItem(plan: PlanDoc): ReadonlyMap<string, number> {
  const taken = new Map<string, number>();
  for (const parts of Object.values(plan.clusters?.clusters ?? {})) {
    for (const choice of Object.values(parts)) {
      for (const piece of choice.pieces ?? []) taken.set(piece.item, (taken.get(piece.item) ?? 0) + 1);
    }
  }
  return taken;
}

/** A plan in which some checks are off, beside those that are off on this page. */
export function withoutChecks(plan: PlanDoc, never: readonly string[]): PlanDoc {
  if (never.length === 0) return plan;
  const off = [...new Set([...(plan.clusters?.off ?? []), ...never])].sort();
  return { ...plan, clusters: { ...plan.clusters, off } as NonNullable<PlanDoc["clusters"]> };
}
