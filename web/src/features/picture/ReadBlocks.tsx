import { useEffect, useRef, useState } from "react";
import type { SketchDoc } from "@/api/client";
import { edged, stepOf } from "@/features/sketch/model";
import { BlockBadge, byNumber, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { kindWord } from "@/shared/drawing/geometry";
import { BlockInHand, type WrittenSize } from "./BlockInHand";
import { accepted, asKind, bySure, dropped, halved, KIND_KEYS, merged, sureOf, UNSURE, unsure } from "./review";

type Props = {
  sketch: SketchDoc;
  at: string | undefined;
  written: readonly WrittenSize[];
  lit: string | undefined;
  onPoint: (id: string | undefined) => void;
  onWalk: (id: string | undefined) => void;
  onChange: (sketch: SketchDoc) => void;
};

type Edge = "left" | "top" | "right" | "bottom";

const EDGE_KEYS: Record<string, Edge> = { "1": "left", "2": "top", "3": "right", "4": "bottom" };
const WAYS: Record<string, readonly [readonly Edge[], number]> = {
  ArrowLeft: [["left", "right"], -1],
  ArrowRight: [["left", "right"], 1],
  ArrowUp: [["top", "bottom"], -1],
  ArrowDown: [["top", "bottom"], 1],
};

/** The blocks that were read, the least sure first: walked with the arrow keys, accepted with Enter, changed by a letter. */
export function ReadBlocks({ sketch, at, written, lit, onPoint, onWalk, onChange }: Props) {
  const numbers = useBlockNumbers();
  const [marked, setMarked] = useState<string>();
  const [edge, setEdge] = useState<Edge>();
  const list = useRef<HTMLDivElement>(null);
  const order = bySure(sketch);
  const here = Math.max(
    0,
    order.findIndex((b) => b.id === at),
  );
  const now = order[here];
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  });
  const walk = (by: number) => onWalk(order[Math.min(order.length - 1, Math.max(0, here + by))]?.id);
  /** After a decision the next block that waits for one is at hand. */
  const decide = (next: SketchDoc) => {
    onChange(next);
    const waiting =
      bySure(next).find((b) => sureOf(b) < UNSURE) ?? bySure(next)[Math.min(here, next.blocks.length - 1)];
    onWalk(waiting?.id);
  };
  const left = unsure(sketch);
  const sure = order.filter((b) => sureOf(b) >= UNSURE && sureOf(b) < 1);
  const mark = () => setMarked((m) => (m === now?.id ? undefined : now?.id));
  const other = marked !== now?.id && sketch.blocks.some((b) => b.id === marked) ? marked : undefined;
  const gather = () => {
    if (!now || !other) return;
    setMarked(undefined);
    decide(merged(sketch, now.id, other));
  };
  const press = (e: React.KeyboardEvent) => {
    if (!now || e.ctrlKey || e.metaKey || e.altKey) return;
    const kind = KIND_KEYS.find((k) => k.key === e.key.toLowerCase())?.kind;
    const way = edge && WAYS[e.key];
    if (edge && way) {
      // With an edge in hand the arrows move it by a step; across it they do nothing.
      if (way[0].includes(edge)) onChange(accepted(edged(sketch, now.id, edge, way[1] * stepOf(sketch)), now.id));
    } else if (EDGE_KEYS[e.key]) setEdge((held) => (held === EDGE_KEYS[e.key] ? undefined : EDGE_KEYS[e.key]));
    else if (e.key === "Escape" && edge) setEdge(undefined);
    else if (e.key === " ") mark();
    else if (e.key === "g") gather();
    else if (e.key === "h") decide(halved(sketch, now.id));
    else if (e.key === "ArrowDown") walk(1);
    else if (e.key === "ArrowUp") walk(-1);
    else if (e.key === "Enter") decide(accepted(sketch, now.id));
    else if (e.key === "Delete" || e.key === "Backspace") decide(dropped(sketch, now.id));
    else if (kind && now.kind !== "grid" && now.kind !== "ring") decide(asKind(sketch, now.id, kind));
    else return;
    e.preventDefault();
  };
  return (
    <section aria-labelledby="read-blocks" className="grid gap-2">
      <div className="flex items-baseline gap-2">
        <h2 id="read-blocks" className="grow text-[16px]">
          {left > 0 ? "Look at these first" : "All settled"}
        </h2>
        <span className="text-second">least sure at the top</span>
      </div>
      <div
        ref={list}
        role="listbox"
        aria-labelledby="read-blocks"
        aria-activedescendant={now && `read-${now.id}`}
        tabIndex={0}
        className="max-h-[30vh] overflow-y-auto border border-hairline"
        onKeyDown={press}
        onFocus={() => now && onWalk(now.id)}
      >
        {order.map((b) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the list itself takes the keys
          <div
            key={b.id}
            id={`read-${b.id}`}
            role="option"
            tabIndex={-1}
            aria-selected={b.id === now?.id}
            className={`flex cursor-pointer items-baseline gap-2 border-hairline border-b px-2 py-1 ${b.id === now?.id ? "bg-lit" : b.id === lit ? "bg-worktop" : ""}`}
            onPointerEnter={() => onPoint(b.id)}
            onPointerLeave={() => onPoint(undefined)}
            onClick={() => onWalk(b.id)}
          >
            <span className="w-[2.4rem]">
              <BlockBadge number={numbers.get(b.id) ?? "?"} on={b.id === now?.id} />
            </span>
            <span className="grow">
              {kindWord(b.kind)}
              {b.id === marked && <span className="text-pin"> (marked)</span>}
              {b.id === now?.id && edge && <span className="text-pin"> ({edge} edge in hand)</span>}
            </span>
            <span className={sureOf(b) < UNSURE ? "font-semibold text-measure" : "text-second"}>
              {sureOf(b) >= 1 ? "settled" : `${Math.round(sureOf(b) * 100)} % sure`}
            </span>
          </div>
        ))}
      </div>
      {now && (
        <>
          <div className="flex flex-wrap gap-1.5">
            <button type="button" className="button" onClick={() => decide(accepted(sketch, now.id))}>
              Keep
            </button>
            <button type="button" className="button" onClick={() => decide(dropped(sketch, now.id))}>
              Drop
            </button>
            <button type="button" className="button" onClick={() => decide(halved(sketch, now.id))}>
              Halve it
            </button>
            {other ? (
              <button type="button" className="button" onClick={gather}>
                Join with {byNumber(other, numbers)}
              </button>
            ) : (
              <button type="button" className="button" aria-pressed={marked === now.id} onClick={mark}>
                {marked === now.id ? "Now take the other" : "Join with another"}
              </button>
            )}
          </div>
          {left > 0 && sure.length > 1 && (
            <button
              type="button"
              className="button justify-self-start"
              onClick={() => onChange(sure.reduce((s, b) => accepted(s, b.id), sketch))}
            >
              Keep all {sure.length} that are sure
            </button>
          )}
          <BlockInHand sketch={sketch} block={now} written={written} onChange={onChange} onDecide={decide} />
          <details className="text-second">
            <summary className="cursor-pointer">Keys, with the list in hand</summary>
            <p>
              Arrows walk, Enter keeps, Delete drops. A letter gives another kind. Space marks a block, g joins it with
              the one in hand, h halves. 1 to 4 take an edge in hand, arrows move it, Escape lets go.
            </p>
          </details>
        </>
      )}
    </section>
  );
}
