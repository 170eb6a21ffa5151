// Findings and cures as pure functions.

import type { BoxDoc, CureDoc, FindingDoc, FitDoc, LayoutDoc } from "@/api/client";
import { type PinEdge, withPin } from "@/features/fit/model";

/** A finding's letter: A, B, … Z, then AA. */
export function letterOf(n: number): string {
  const last = String.fromCharCode(65 + (n % 26));
  return n < 26 ? last : letterOf(Math.floor(n / 26) - 1) + last;
}

/** What a finding is known by as long as nothing about it changes. */
export function keyOf(finding: FindingDoc): string {
  const { what, edge, blocks, between } = finding;
  return [what, edge ?? "", ...(blocks ?? between ?? [])].join(" ");
}

/** Where a finding is to be seen: the pocket itself, or a line through both edges. */
export function placeOf(finding: FindingDoc, layout: LayoutDoc): BoxDoc | undefined {
  if (finding.box) return finding.box;
  const boxes = (finding.blocks ?? []).flatMap((id) => layout.blocks.filter((b) => b.id === id).map((b) => b.box));
  const [a, b] = boxes;
  if (!a || !b) return undefined;
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
export function withCure(fit: FitDoc, layout: LayoutDoc, cure: CureDoc): FitDoc | undefined {
  const block = layout.blocks.find((b) => b.id === cure.block);
  const of = block?.from[0];
  if (!block || !of || block.from.length !== 1 || layout.blocks.filter((b) => b.from[0] === of).length !== 1) {
    return undefined;
  }
  const edges = (b: BoxDoc): [PinEdge, number][] => [
    ["left", b.x],
    ["top", b.y],
    ["right", b.x + b.w],
    ["bottom", b.y + b.h],
  ];
  const before = new Map(edges(block.box));
  const moved = edges(cure.box).filter(([edge, at]) => Math.abs(at - (before.get(edge) ?? at)) > HAIR);
  return moved.reduce((pinned, [edge, at]) => withPin(pinned, of, edge, at), fit);
}

/** The fit with both blocks of a near miss held to one line, wherever that comes to lie. Nothing where both are the same block of the sketch,
 * or the fit can't hold one of them. */
export function inLine(fit: FitDoc, layout: LayoutDoc, finding: FindingDoc): FitDoc | undefined {
  const [first, second] = (finding.blocks ?? []).map((id) => layout.blocks.find((b) => b.id === id)?.from);
  const [to, block] = [first?.[0], second?.[0]];
  const { edge } = finding;
  if (!to || !block || !edge || to === block || first?.length !== 1 || second?.length !== 1) return undefined;
  return { ...fit, pins: [...(fit.pins ?? []), { block, edge, at: 0, to: { block: to, edge } }] };
}
