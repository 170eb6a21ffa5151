import type { BlockDoc, SketchDoc } from "@/api/client";
import { unitOf } from "@/features/sketch/model";
import { BlockBadge, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { kindWord } from "@/shared/drawing/geometry";
import { LengthField } from "@/shared/ui/LengthField";
import { accepted, asKind, KIND_KEYS, sized } from "./review";

/** A size in inches that is written in a block on the sketch. */
export type WrittenSize = { block: string; w: number; h: number };

type Props = {
  written: readonly WrittenSize[];
  sketch: SketchDoc;
  block: BlockDoc;
  onChange: (sketch: SketchDoc) => void;
  onDecide: (sketch: SketchDoc) => void;
};

const SIDES = [
  ["left", "x"],
  ["top", "y"],
  ["width", "w"],
  ["height", "h"],
] as const;

/** The block in hand: its place in numbers, and what it is. */
export function BlockInHand({ sketch, block, written, onChange, onDecide }: Props) {
  const numbers = useBlockNumbers();
  const unit = unitOf(sketch);
  const { page, pages } = sketch.canvas;
  const put = (side: "x" | "y" | "w" | "h", value: number) => {
    const blocks = sketch.blocks.map((b) => (b.id === block.id ? { ...b, box: { ...b.box, [side]: value } } : b));
    onChange(accepted({ ...sketch, blocks }, block.id));
  };
  const says = written.find((w) => w.block === block.id);
  const isOne = !block.grid && !block.ring;
  return (
    <section aria-labelledby="in-hand" className="grid gap-2 border-hairline border-t pt-2">
      <h2 id="in-hand" className="text-[16px]">
        Block <BlockBadge number={numbers.get(block.id) ?? "?"} on />, {kindWord(block.kind)}
      </h2>
      <div className="grid grid-cols-4 gap-1.5 [&_input]:w-full">
        {SIDES.map(([label, side]) => (
          <span key={side} className="grid [&>span>span:first-child]:grid">
            <LengthField
              label={label}
              value={block.box[side]}
              unit={unit}
              width="100%"
              least={side === "w" || side === "h" ? 1 / 16 : -4}
              most={Math.max(page.w * pages, page.h) + 8}
              onCommit={(value) => put(side, value)}
            />
          </span>
        ))}
      </div>
      {says && (
        <p className="flex flex-wrap items-center gap-2">
          <span className="grow">
            {says.w} × {says.h} is written in it.
          </span>
          <button type="button" className="button" onClick={() => onChange(sized(sketch, block.id, says))}>
            Make it that size
          </button>
        </p>
      )}
      {isOne && (
        <fieldset className="grid grid-cols-5 gap-1.5" aria-label="It is a">
          {KIND_KEYS.map((k) => (
            <button
              key={k.kind}
              type="button"
              className="button grid justify-items-center !gap-0 !px-0 !py-0.5 leading-tight"
              aria-pressed={block.kind === k.kind}
              onClick={() => onDecide(asKind(sketch, block.id, k.kind))}
            >
              <span className="font-semibold">{k.key.toUpperCase()}</span>
              <span className="text-[11.5px]">{kindWord(k.kind)}</span>
            </button>
          ))}
        </fieldset>
      )}
    </section>
  );
}
