import { useDrag } from "@use-gesture/react";
import { useRef, useState } from "react";
import type { BlockDoc, SketchDoc } from "@/api/client";
import { extent, kindWord } from "@/shared/drawing/geometry";
import { Measures } from "@/shared/drawing/Measures";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Rulers } from "@/shared/drawing/Rulers";
import { useWindowHeight } from "@/shared/ui/useRoom";
import { useWidth } from "@/shared/ui/useWidth";
import { drawn, type Edge, moved, pulled, resized, stepOf, unitOf, without } from "./model";
import type { Pointed } from "./Understood";

type Props = {
  sketch: SketchDoc;
  selected: string | undefined;
  drawing: string | undefined;
  mayChange: boolean;
  onSelect: (id: string | undefined) => void;
  onCommit: (sketch: SketchDoc, reason: string, id?: string) => void;
  /** A page to lay blocks over: where its picture is. */
  under?: string | undefined;
  /** How strongly blocks are drawn over the page under them, 0 to 1. */
  strength?: number;
  /** The reading that is pointed at. */
  pointed?: Pointed | undefined;
  /** The block that is pointed at elsewhere, and what is told when one is pointed at here. */
  lit?: string | undefined;
  onPoint?: ((id: string | undefined) => void) | undefined;
  /** What stands above and below the page takes so much of the window's height. */
  around?: number;
};

/** What the hand is doing to the sketch. */
type Drag = { apply: (dx: number, dy: number) => SketchDoc; reason: string; id?: string };

/** Handles lie at a block's corners and in the middle of its edges. */
const HANDLE = 12;
const GRIP = 26;
const HANDLES: readonly { edges: readonly Edge[]; u: number; v: number; cursor: string }[] = [
  { edges: ["left", "top"], u: 0, v: 0, cursor: "nwse-resize" },
  { edges: ["top"], u: 0.5, v: 0, cursor: "ns-resize" },
  { edges: ["right", "top"], u: 1, v: 0, cursor: "nesw-resize" },
  { edges: ["left"], u: 0, v: 0.5, cursor: "ew-resize" },
  { edges: ["right"], u: 1, v: 0.5, cursor: "ew-resize" },
  { edges: ["left", "bottom"], u: 0, v: 1, cursor: "nesw-resize" },
  { edges: ["bottom"], u: 0.5, v: 1, cursor: "ns-resize" },
  { edges: ["right", "bottom"], u: 1, v: 1, cursor: "nwse-resize" },
];
const RULER = 26;
const ROOM = 10;
const AROUND = 260;
const LOWEST = 250;

/** The sketch drawn to scale: move, resize and draw by mouse, on the ruler's step, with distances. */
export function DrawnSketch({
  sketch,
  selected,
  drawing,
  mayChange,
  onSelect,
  onCommit,
  under,
  strength = 1,
  pointed,
  lit,
  onPoint,
  around = AROUND,
}: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const paper = useRef<SVGSVGElement>(null);
  const width = useWidth(frame, 500);
  const [shown, setShown] = useState<SketchDoc>();
  const height = useWindowHeight();
  const { page, pages } = sketch.canvas;
  const unit = unitOf(sketch);
  const tallest = Math.max(LOWEST, height - around);
  const scale = Math.max(0.1, Math.min((width - RULER - ROOM) / (page.w * pages), tallest / page.h));
  const size = { w: page.w * pages * scale, h: page.h * scale };
  const now = shown ?? sketch;
  const block = now.blocks.find((b) => b.id === selected);

  /** Where on the page a pointer is. */
  const point = ([x, y]: readonly [number, number]): [number, number] => {
    const box = paper.current?.getBoundingClientRect();
    return [(x - (box?.left ?? 0) - RULER) / scale, (y - (box?.top ?? 0) - RULER) / scale];
  };
  const startDrawing = (from: [number, number], kind: string): Drag => ({
    apply: (dx, dy) => drawn(sketch, kind, from, [from[0] + dx, from[1] + dy]),
    reason: `${kindWord(kind)} drawn`,
  });
  const bind = useDrag(
    ({ args: [start], first, last, tap, initial, movement: [dx, dy], memo, event }) => {
      event.stopPropagation();
      const doing: Drag | undefined = first
        ? (start as (from: [number, number]) => Drag | undefined)(point(initial))
        : memo;
      if (!doing) return undefined;
      const now = doing.apply(dx / scale, dy / scale);
      if (!last) setShown(now);
      else {
        setShown(undefined);
        if (!tap && now !== sketch) onCommit(now, doing.reason, doing.id ?? now.blocks.at(-1)?.id);
      }
      return doing;
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  /** What a hand that takes hold of a block does to it. */
  const holding = (id: string, apply: typeof moved, reason: string) => (): Drag | undefined => {
    onSelect(id);
    return mayChange ? { apply: (dx, dy) => apply(sketch, id, dx, dy), reason, id } : undefined;
  };
  const onKey = (e: React.KeyboardEvent) => {
    if (!block || !mayChange) return;
    const step = stepOf(sketch);
    const ways: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const way = ways[e.key];
    if (way) {
      e.preventDefault();
      onCommit((e.shiftKey ? resized : moved)(sketch, block.id, way[0], way[1]), `${block.id} nudged`);
    } else if (e.key === "Delete") onCommit(without(sketch, block.id), `${block.id} taken away`);
    else if (e.key === "Escape") onSelect(undefined);
  };

  const measured = { canvas: now.canvas, unit, scale, bounds: size };
  const numbers = now.blocks.map((b) => {
    const box = extent(b);
    const y = (box.y + box.h / 2) * scale + (b.kind === "mat" ? 16 : 0);
    return { id: b.id, x: (box.x + box.w / 2) * scale, y };
  });

  return (
    // Blocks are nudged with the arrow keys from here; the lines do all of it by keyboard.
    <div
      ref={frame}
      role="application"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: see above
      tabIndex={0}
      aria-label="The sketch to scale; its lines are beside it"
      onKeyDown={onKey}
    >
      <svg
        ref={paper}
        width={RULER + size.w + ROOM}
        height={RULER + size.h + ROOM}
        aria-hidden="true"
        className="mx-auto block"
        style={{ touchAction: "none" }}
      >
        <Rulers canvas={sketch.canvas} unit={unit} scale={scale} at={RULER} />
        <g transform={`translate(${RULER} ${RULER})`}>
          {under ? (
            <>
              <image href={under} width={size.w} height={size.h} preserveAspectRatio="none" />
              <g opacity={strength}>
                <Outlines sketch={now} scale={scale} selected={selected} />
              </g>
            </>
          ) : (
            <PageSheet canvas={now.canvas} blocks={now.blocks} scale={scale} />
          )}
          <rect
            width={size.w}
            height={size.h}
            fill="transparent"
            className={drawing ? "cursor-crosshair" : ""}
            {...bind((from: [number, number]) => {
              if (drawing && mayChange) return startDrawing(from, drawing);
              onSelect(undefined);
              return undefined;
            })}
          />
          {!drawing &&
            now.blocks.map((b) => {
              const box = extent(b);
              return (
                <rect
                  key={b.id}
                  x={box.x * scale}
                  y={box.y * scale}
                  width={box.w * scale}
                  height={box.h * scale}
                  fill="transparent"
                  className={mayChange ? "cursor-move" : "cursor-pointer"}
                  onPointerEnter={() => onPoint?.(b.id)}
                  onPointerLeave={() => onPoint?.(undefined)}
                  {...bind(holding(b.id, moved, `${b.id} moved`))}
                />
              );
            })}
          {pointed && <Lit pointed={pointed} sketch={now} scale={scale} />}
          {lit && <Lit pointed={{ blocks: [lit] }} sketch={now} scale={scale} />}
          {block && <Measures {...measured} boxes={[extent(block)]} only="lines" />}
          <g aria-hidden style={{ pointerEvents: "none" }}>
            {numbers.map((at, n) => (
              <NumberTag key={at.id} x={at.x} y={at.y} number={String(n + 1)} lit={at.id === selected} />
            ))}
          </g>
          {block && <Measures {...measured} boxes={[extent(block)]} numbers={numbers} only="labels" />}
          {block &&
            mayChange &&
            HANDLES.map(({ edges, u, v, cursor }) => {
              const [x, y] = [(block.box.x + block.box.w * u) * scale, (block.box.y + block.box.h * v) * scale];
              return (
                <g
                  key={edges.join("-")}
                  data-handle={edges.join(" ")}
                  style={{ cursor }}
                  transform={turnOf(block, scale)}
                  {...bind(holding(block.id, (s, id, dx, dy) => pulled(s, id, edges, dx, dy), `${block.id} resized`))}
                >
                  {/* A finger needs more room than the eye. */}
                  <rect x={x - GRIP / 2} y={y - GRIP / 2} width={GRIP} height={GRIP} fill="transparent" />
                  <rect
                    x={x - HANDLE / 2}
                    y={y - HANDLE / 2}
                    width={HANDLE}
                    height={HANDLE}
                    fill="#ffffff"
                    stroke="#c2185b"
                    strokeWidth={2}
                  />
                </g>
              );
            })}
        </g>
      </svg>
    </div>
  );
}

/** A block's turn, round its middle. */
const turnOf = ({ box, turn }: BlockDoc, scale: number) =>
  turn ? `rotate(${turn} ${(box.x + box.w / 2) * scale} ${(box.y + box.h / 2) * scale})` : undefined;

/** What a reading is about, as it lies on the page: its blocks outlined, and the line that they share. */
function Lit({ pointed, sketch, scale }: { pointed: Pointed; sketch: SketchDoc; scale: number }) {
  const { page, pages } = sketch.canvas;
  const { line } = pointed;
  const upright = line && ["left", "right", "centre-x"].includes(line.along);
  const at = (line?.at ?? 0) * scale;
  return (
    <g aria-hidden style={{ pointerEvents: "none" }} stroke="#0b7d69" fill="none" data-lit={pointed.blocks.join(" ")}>
      {sketch.blocks
        .filter((b) => pointed.blocks.includes(b.id))
        .map((b) => {
          const box = extent(b);
          return (
            <rect
              key={b.id}
              x={box.x * scale}
              y={box.y * scale}
              width={box.w * scale}
              height={box.h * scale}
              strokeWidth={2.5}
              fill="#0b7d69"
              fillOpacity={0.14}
            />
          );
        })}
      {line && (
        <path
          d={upright ? `M${at} 0V${page.h * scale}` : `M0 ${at}H${page.w * pages * scale}`}
          strokeWidth={2}
          strokeDasharray="7 4"
        />
      )}
    </g>
  );
}

/** Blocks as outlines, so that the page under them stays in sight. */
function Outlines({ sketch, scale, selected }: { sketch: SketchDoc; scale: number; selected: string | undefined }) {
  return sketch.blocks.map((b) => {
    const box = { x: b.box.x * scale, y: b.box.y * scale, width: b.box.w * scale, height: b.box.h * scale };
    const turn = `rotate(${b.turn ?? 0} ${box.x + box.width / 2} ${box.y + box.height / 2})`;
    return (
      <g key={b.id} transform={turn}>
        <rect {...box} fill={b.id === selected ? "#ffffff59" : "#ffffff1f"} stroke="#ffffff" strokeWidth={4} />
        <rect {...box} fill="none" stroke={b.id === selected ? "#c2185b" : "#17263b"} strokeWidth={1.6} />
      </g>
    );
  });
}
