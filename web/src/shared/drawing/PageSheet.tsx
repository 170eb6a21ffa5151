import { memo, useId } from "react";
import type { BlockDoc, BoxDoc, LayoutBlockDoc } from "@/api/client";
import { BlockShape, PATTERNS } from "./BlockShape";
import { scaled } from "./geometry";
import { type PaperLook, partNames, usePaperFills, usePapers } from "./papers";

type Canvas = { page: { w: number; h: number }; pages: number };
type AnyBlock = BlockDoc & Partial<Pick<LayoutBlockDoc, "page" | "whole">>;

type Props = {
  canvas: Canvas;
  blocks: readonly AnyBlock[];
  scale: number;
  guard?: number;
  /** Seen through from behind: what lies lowest hides what lies on it. The caller turns the drawing over. */
  fromBehind?: boolean;
};

/** The paper of a page or spread with its blocks, cut at the page's edges and at the fold. A part of a larger block is
 * drawn as the piece of the whole on its page. */
export const PageSheet = memo(function PageSheet({ canvas, blocks, scale, guard = 0, fromBehind = false }: Props) {
  const clips = useId();
  const page = { w: canvas.page.w * scale, h: canvas.page.h * scale };
  const width = page.w * canvas.pages;
  const clip = (which: string) => `${clips}-${which}`;
  const papers = usePapers();
  // Sketches have no papers: their blocks stand for nothing.
  const names = papers.size > 0 && blocks.some((b) => "from" in b) ? partNames(blocks) : undefined;
  const looks: PaperLook[] = names ? [...papers.values()] : [];
  const { defs, fill } = usePaperFills(looks, scale);
  return (
    <g>
      <defs>
        <Clip id={clip("all")} box={{ x: 0, y: 0, w: width, h: page.h }} />
        <Clip id={clip("0")} box={{ x: 0, y: 0, ...page }} />
        <Clip id={clip("1")} box={{ x: page.w, y: 0, ...page }} />
        {defs}
      </defs>
      <rect width={width} height={page.h} fill="#ffffff" stroke="#17263b" />
      {names &&
        Array.from({ length: canvas.pages }, (_, n) => {
          const ground = fill(papers.get(`ground-${n}`));
          return (
            ground && (
              <rect
                key={`ground-${String(n)}`}
                x={n * page.w}
                width={page.w}
                height={page.h}
                fill={ground}
                stroke="#17263b"
              />
            )
          );
        })}
      {canvas.pages === 2 && guard > 0 && !papers.has("ground-0") && (
        <rect x={page.w - guard * scale} width={2 * guard * scale} height={page.h} fill="#eef1f2" />
      )}
      {(fromBehind ? [...blocks].reverse() : blocks).map((block) => {
        const whole = block.whole ? { ...block, ...block.whole } : block;
        // The back of a photo is white.
        const drawn = fromBehind && whole.kind === "photo" ? { ...whole, kind: "mat" as const } : whole;
        const name = names?.get(block.id);
        const paperOf = name && ((unit?: string) => fill((unit && papers.get(`${name}/${unit}`)) || papers.get(name)));
        return (
          <g key={block.id} clipPath={`url(#${clip(block.whole ? String(block.page ?? 0) : "all")})`}>
            <BlockShape block={drawn} scale={scale} patterns={PATTERNS} paperOf={paperOf || undefined} />
          </g>
        );
      })}
      {canvas.pages === 2 && (
        <path d={`M${page.w} 0V${page.h}`} stroke="#17263b" strokeWidth={1.2} strokeDasharray="6 4" fill="none" />
      )}
    </g>
  );
});

function Clip({ id, box }: { id: string; box: BoxDoc }) {
  return (
    <clipPath id={id}>
      <rect x={box.x} y={box.y} width={box.w} height={box.h} />
    </clipPath>
  );
}

/** A to-scale picture of a page or spread that fits a box. */
export const Thumbnail = memo(function Thumbnail({
  canvas,
  blocks,
  width,
  height,
  label,
}: Omit<Props, "scale"> & { width: number; height: number; label: string }) {
  const scale = Math.min((width - 2) / (canvas.page.w * canvas.pages), (height - 2) / canvas.page.h);
  const size = scaled({ x: 0, y: 0, w: canvas.page.w * canvas.pages, h: canvas.page.h }, scale);
  return (
    <svg
      width={size.w + 2}
      height={size.h + 2}
      viewBox={`-1 -1 ${size.w + 2} ${size.h + 2}`}
      role="img"
      aria-label={label}
    >
      <PageSheet canvas={canvas} blocks={blocks} scale={scale} />
    </svg>
  );
});

/** A page or spread drawn to a common scale, so many pixels an inch. */
export function ScaledThumbnail({
  canvas,
  blocks,
  unit,
  perInch,
}: {
  canvas: Canvas;
  blocks: readonly AnyBlock[];
  unit: "in" | "mm";
  perInch: number;
}) {
  const scale = unit === "mm" ? perInch / 25.4 : perInch;
  const w = canvas.page.w * canvas.pages * scale;
  const h = canvas.page.h * scale;
  return (
    <svg width={w + 2} height={h + 2} viewBox={`-1 -1 ${w + 2} ${h + 2}`} aria-hidden="true" className="block">
      <PageSheet canvas={canvas} blocks={blocks} scale={scale} />
    </svg>
  );
}

/** A block's number in a circle: its handle. */
export function NumberTag({
  x,
  y,
  number,
  lit,
  small,
}: {
  x: number;
  y: number;
  number: string;
  lit?: boolean;
  small?: boolean;
}) {
  const r = (small ? 6.5 : 9) + (number.length > 2 ? 1.5 : 0);
  return (
    <g data-number={number}>
      <circle cx={x} cy={y} r={r} fill={lit ? "#17263b" : "#ffffff"} stroke="#17263b" />
      <text
        x={x}
        y={y}
        dy="0.35em"
        textAnchor="middle"
        fontSize={small ? 8.5 : number.length > 2 ? 10 : 11}
        fontWeight={700}
        fill={lit ? "#ffffff" : "#17263b"}
      >
        {number}
      </text>
    </g>
  );
}
