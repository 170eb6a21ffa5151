import { useDrag, usePinch } from "@use-gesture/react";
import { useRef, useState } from "react";
import type { BoxDoc, FitDoc, LayoutDoc, PlaceDoc } from "@/api/client";
import type { Numbered } from "@/shared/drawing/geometry";
import { extent, kindWord } from "@/shared/drawing/geometry";
import { Measures } from "@/shared/drawing/Measures";
import type { Spot } from "@/shared/drawing/measureLabels";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Rulers } from "@/shared/drawing/Rulers";
import { Length } from "@/shared/ui/Length";
import { useWindowHeight } from "@/shared/ui/useRoom";
import { useWidth } from "@/shared/ui/useWidth";
import { unitOf } from "./model";
import { PinWedges } from "./PinWedges";
import { tagPlaces } from "./tagPlaces";

type Props = {
  fit: FitDoc;
  layout: LayoutDoc;
  approach: string;
  blocks: readonly Numbered[];
  selected: string | undefined;
  lit: string | undefined;
  faded: boolean;
  /** How much of the window's height is kept for what stands below, in pixels. */
  below: number;
  onSelect: (id: string) => void;
  onLight: (id: string | undefined) => void;
  places: readonly PlaceDoc[];
  /** A block is dragged: its left and top edges are wanted there. */
  onDrag: ((block: string, left: number, top: number) => void) | undefined;
  onDrop: () => void;
};

const RULER = 26;
const ROOM = 10;
/** What the tape and the page's heading take of the window's height. */
const ABOVE = 184;
/** A page is enlarged up to so many times. */
const MOST_TIMES = 4;
/** No page is drawn lower than this. */
const LOWEST = 250;

/** The page or spread to scale, with rulers, fold, numbers, and the selected block's distances. */
export function PageDrawing(props: Props) {
  const { fit, layout, approach, blocks, selected, lit, faded, below, places, onSelect, onLight, onDrag, onDrop } =
    props;
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 600);
  const height = useWindowHeight();
  const { canvas } = layout;
  const unit = unitOf(fit);
  const across = canvas.page.w * canvas.pages;
  // The page is whole in view wherever the window is as high as a page needs.
  const tallest = Math.max(LOWEST, height - ABOVE - RULER - ROOM - below);
  const whole = Math.max(0.1, Math.min((width - RULER - ROOM) / across, tallest / canvas.page.h));
  const [times, setTimes] = useState(1);
  const pinched = usePinch(({ offset: [by] }) => setTimes(Math.round(by * 4) / 4), {
    from: () => [times, 0],
    scaleBounds: { min: 1, max: MOST_TIMES },
  });
  const scale = whole * times;
  const size = { w: across * scale, h: canvas.page.h * scale };
  const tags = tagPlaces(blocks, scale, canvas);
  // What is pointed at is measured; where nothing is, what is selected.
  const measured = lit ?? selected;
  const chosen = firstOnEachPage(blocks.filter((b) => measured !== undefined && b.block.from.includes(measured)));

  const measures = { boxes: chosen.map(({ block }) => extent(block)), canvas, unit, scale, bounds: size };
  const wanted = places.find((p) => p.id === measured && isElsewhere(p))?.wanted;
  return (
    <section aria-labelledby="page-title" className="min-w-0">
      <div className="mb-1 flex flex-wrap items-center justify-between gap-x-4">
        <h2 id="page-title" className="text-[17px]">
          {canvas.pages === 2 ? "Two pages" : "One page"}, <Length value={canvas.page.w} unit={unit} /> ×{" "}
          <Length value={canvas.page.h} unit={unit} withUnit />, by {approach}
        </h2>
        <label className="flex items-center gap-2 text-[13px] text-second">
          enlarge
          <input
            type="range"
            className="h-6 w-[110px] accent-ink pointer-coarse:h-11"
            min={1}
            max={MOST_TIMES}
            step={0.25}
            value={times}
            onChange={(e) => setTimes(Number(e.target.value))}
          />
        </label>
      </div>
      <div
        ref={frame}
        {...pinched()}
        className={times > 1 ? "touch-pan-x touch-pan-y overflow-auto" : "touch-pan-x touch-pan-y"}
        style={times > 1 ? { maxHeight: RULER + canvas.page.h * whole + ROOM } : undefined}
      >
        <svg
          width={RULER + size.w + ROOM}
          height={RULER + size.h + ROOM}
          role="img"
          aria-label="The page to scale; the measure sheet has its numbers"
          className={`mx-auto block ${faded ? "opacity-40" : ""}`}
        >
          <Rulers canvas={canvas} unit={unit} scale={scale} at={RULER} />
          <g transform={`translate(${RULER} ${RULER})`}>
            <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
            {blocks.map(({ block, number }) => {
              const id = block.from[0] ?? block.id;
              return (
                <Handle
                  key={block.id}
                  box={extent(block)}
                  scale={scale}
                  label={`Block ${number}, ${kindWord(block.kind)}`}
                  lit={lit !== undefined && block.from.includes(lit)}
                  onSelect={() => onSelect(id)}
                  onLight={(on) => onLight(on ? id : undefined)}
                  onDrag={
                    // On a second copy of the sketch a pin holds the first.
                    onDrag && !(block.page === 1 && ["mirror", "echo"].includes(approach))
                      ? (from, dx, dy) => onDrag(id, from.x + dx, from.y + dy)
                      : undefined
                  }
                  from={places.find((p) => p.id === id)?.here}
                  onDrop={onDrop}
                />
              );
            })}
            <PinWedges fit={fit} blocks={blocks} scale={scale} />
            {wanted && <Wanted box={wanted} scale={scale} numbers={tags} />}
            <Measures {...measures} only="lines" />
            <g aria-hidden style={{ pointerEvents: "none" }}>
              {tags.map(({ number, block, x, y }) => (
                <NumberTag
                  key={block.id}
                  x={x}
                  y={y}
                  number={number}
                  lit={block.from.some((id) => id === selected || id === lit)}
                />
              ))}
            </g>
            <Measures {...measures} numbers={tags} only="labels" />
          </g>
        </svg>
      </div>
    </section>
  );
}

/** Whether a block is not where it was wanted, by more than a hair. */
function isElsewhere({ wanted, here }: PlaceDoc): boolean {
  const far = (a: number, b: number) => Math.abs(a - b) > Math.max(wanted.w, wanted.h) * 0.03;
  return far(wanted.x, here.x) || far(wanted.y, here.y) || far(wanted.w, here.w) || far(wanted.h, here.h);
}

/** The word that says so, in pixels. */
const WORD = { w: 44, h: 14 };

/** Where the sketch alone would have put it. */
function Wanted({ box, scale, numbers }: { box: BoxDoc; scale: number; numbers: readonly Spot[] }) {
  const [left, right] = [box.x * scale + 4, (box.x + box.w) * scale - WORD.w - 4];
  const [top, bottom] = [box.y * scale + WORD.h, (box.y + box.h) * scale - 4];
  // In the first corner where no block's number is.
  const corners = [
    [left, bottom],
    [right, bottom],
    [left, top],
    [right, top],
  ] as const;
  const isFree = ([x, y]: readonly [number, number]) =>
    numbers.every((n) => n.x < x - 12 || n.x > x + WORD.w + 12 || n.y < y - WORD.h - 10 || n.y > y + 12);
  const [x, y] = corners.find(isFree) ?? corners[0];
  return (
    <g aria-hidden style={{ pointerEvents: "none" }} fill="none" stroke="#17263b">
      <rect
        x={box.x * scale}
        y={box.y * scale}
        width={box.w * scale}
        height={box.h * scale}
        strokeDasharray="4 3"
        strokeWidth={1.2}
      />
      <text
        x={x}
        y={y}
        fontSize={12}
        fontWeight={600}
        fill="#17263b"
        stroke="#ffffff"
        strokeWidth={3}
        paintOrder="stroke"
      >
        wanted
      </text>
    </g>
  );
}

/** Of what shares a slot, one a page is measured on the page: all of them would write over each other. The sheet has the rest. */
function firstOnEachPage(blocks: readonly Numbered[]): Numbered[] {
  return blocks.filter((b, n) => blocks.findIndex((o) => o.block.page === b.block.page) === n);
}

type HandleProps = {
  box: BoxDoc;
  scale: number;
  label: string;
  lit: boolean;
  onSelect: () => void;
  onLight: (on: boolean) => void;
  /** Where the sketch block is now, its copies and parts taken together. */
  from: BoxDoc | undefined;
  onDrag: ((from: BoxDoc, dx: number, dy: number) => void) | undefined;
  onDrop: () => void;
};

/** A pointer that moves less than this has not dragged. */
const STILL = 5;

/** What answers to the mouse for a block. The keyboard has the block's number and the rows. */
function Handle({ box, scale, label, lit, from, onSelect, onLight, onDrag, onDrop }: HandleProps) {
  const drag = useDrag(
    ({
      movement: [dx, dy],
      tap,
      last,
      memo,
    }: {
      movement: [number, number];
      tap: boolean;
      last: boolean;
      memo?: BoxDoc;
    }) => {
      if (tap) onSelect();
      else if (last) onDrop();
      else if (onDrag && from) {
        const began = memo ?? from;
        onDrag(began, dx / scale, dy / scale);
        return began;
      }
      return memo;
    },
    { filterTaps: true, threshold: STILL, pointer: { keys: false } },
  );
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the keyboard does the same by the block's number or from its row
    <rect
      x={box.x * scale}
      y={box.y * scale}
      width={box.w * scale}
      height={box.h * scale}
      fill={lit ? "#17263b" : "#ffffff"}
      fillOpacity={lit ? 0.08 : 0}
      stroke={lit ? "#17263b" : "none"}
      strokeWidth={2}
      className="cursor-pointer"
      {...drag()}
      // A block is chosen by a first touch and dragged by the next, so that a finger can still move the screen.
      style={{ touchAction: lit && onDrag ? "none" : "pan-x pan-y" }}
      onMouseEnter={() => onLight(true)}
      onMouseLeave={() => onLight(false)}
    >
      <title>{label}</title>
    </rect>
  );
}
