import { useEffect, useRef } from "react";
import type { SketchDoc } from "@/api/client";
import { kindWord } from "@/shared/drawing/geometry";
import { accepted, asKind, bySure, dropped, KIND_KEYS, sureOf, UNSURE } from "./review";

type Props = {
  sketch: SketchDoc;
  at: string | undefined;
  onWalk: (id: string | undefined) => void;
  onChange: (sketch: SketchDoc) => void;
};

/** The blocks that were read, the least sure first: walked with the arrow keys, accepted with Enter, changed by a letter. */
export function ReadBlocks({ sketch, at, onWalk, onChange }: Props) {
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
  const press = (e: React.KeyboardEvent) => {
    if (!now || e.ctrlKey || e.metaKey || e.altKey) return;
    const kind = KIND_KEYS.find((k) => k.key === e.key.toLowerCase())?.kind;
    if (e.key === "ArrowDown") walk(1);
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
        {KIND_KEYS.map((k) => `${k.key} ${kindWord(k.kind)}`).join(", ")}.
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
            <span className="w-[2.4rem] font-semibold">{b.id}</span>
            <span className="grow">{kindWord(b.kind)}</span>
            <span className={sureOf(b) < UNSURE ? "font-semibold text-measure" : "text-second"}>
              {sureOf(b) >= 1 ? "settled" : `${Math.round(sureOf(b) * 100)} % sure`}
            </span>
          </div>
        ))}
      </div>
    </section>
  );
}
