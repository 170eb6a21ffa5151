import { useEffect, useRef, useState } from "react";
import type { SketchDoc } from "@/api/client";
import { edged, stepOf } from "@/features/sketch/model";
import { BlockBadge, byNumber, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { kindWord } from "@/shared/drawing/geometry";
import { accepted, asKind, bySure, dropped, halved, KIND_KEYS, merged, sureOf, UNSURE } from "./review";

type Props = {
  sketch: SketchDoc;
  at: string | undefined;
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
export function ReadBlocks({ sketch, at, onWalk, onChange }: Props) {
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
      <h2 id="read-blocks">Blocks that were read</h2>
      <p className="text-second">
        Arrows walk, Enter accepts, Delete drops. A letter gives another kind:{" "}
        {KIND_KEYS.map((k) => `${k.key} ${kindWord(k.kind)}`).join(", ")}. Space marks a block, g merges it with the one
        in hand, h halves. 1 to 4 take an edge in hand, arrows move it, Escape lets go.
      </p>
      <div
        ref={list}
        role="listbox"
        aria-labelledby="read-blocks"
        aria-activedescendant={now && `read-${now.id}`}
        tabIndex={0}
        className="max-h-[38vh] overflow-y-auto border border-hairline"
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
            className={`flex cursor-pointer items-baseline gap-2 border-hairline border-b px-2 py-1 ${b.id === now?.id ? "bg-lit" : ""}`}
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
        <div className="flex flex-wrap gap-1.5">
          <button type="button" className="button" onClick={() => decide(accepted(sketch, now.id))}>
            Accept
          </button>
          <button type="button" className="button" onClick={() => decide(dropped(sketch, now.id))}>
            Drop
          </button>
          <button type="button" className="button" onClick={() => decide(halved(sketch, now.id))}>
            Halve
          </button>
          <button type="button" className="button" aria-pressed={marked === now.id} onClick={mark}>
            Mark
          </button>
          <button type="button" className="button" disabled={!other} onClick={gather}>
            {other ? `Merge with ${byNumber(other, numbers)}` : "Merge with the marked"}
          </button>
        </div>
      )}
    </section>
  );
}
