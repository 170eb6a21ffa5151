import { useId } from "react";
import type { BlockDoc, BoxDoc, LayoutBlockDoc } from "@/api/client";
import { scaled } from "./geometry";
import { PhotoInSlot, usePhotoImages } from "./photoImages";
import { isRough, type Point, ragged } from "./rough";

const INK = "#17263b";
const SECOND = "#51617a";
const THIN = 1;

type Drawn = Pick<BlockDoc, "kind" | "turn" | "shape" | "grid" | "ring" | "edge"> &
  Partial<Pick<LayoutBlockDoc, "photo" | "print" | "keep">> & { box: BoxDoc };

type Shaped = {
  block: Drawn;
  scale: number;
  patterns: string;
  /** What a block, or one of its units, is filled with where its paper is chosen. */
  paperOf?: ((unit?: string) => string | undefined) | undefined;
};

/** One block in its texture. Kinds are told apart by texture and outline, not by colour alone. */
export function BlockShape({ block, scale, patterns, paperOf }: Shaped) {
  const box = scaled(block.box, scale);
  const cx = box.x + box.w / 2;
  const cy = box.y + box.h / 2;
  return (
    <g transform={block.turn ? `rotate(${block.turn} ${cx} ${cy})` : undefined}>
      <Kind block={block} box={box} scale={scale} patterns={patterns} paperOf={paperOf} />
    </g>
  );
}

function Kind({ block, box, scale, patterns, paperOf }: Shaped & { box: BoxDoc }) {
  const paper = paperOf?.();
  const outline = (fill: string, more: object = {}) => (
    <Outline block={block} box={box} fill={fill} stroke={INK} strokeWidth={THIN} {...more} />
  );
  if (paper && PAPERED.has(block.kind)) return outline(paper);
  switch (block.kind) {
    case "photo":
      return <Photo block={block} box={box} scale={scale} patterns={patterns} />;
    case "mat":
      return outline("#ffffff");
    case "paper":
      return (
        <>
          {outline("#ffffff", { stroke: "none" })}
          {outline(`url(#${patterns}-hatch)`)}
        </>
      );
    case "strip":
      return (
        <>
          {outline("#eef3f5")}
          <Dashes box={box} />
        </>
      );
    case "wash":
      return outline(`url(#${patterns}-stipple)`, { stroke: SECOND, strokeDasharray: "4 3" });
    case "title":
      return (
        <>
          {outline("#ffffff")}
          <Guides box={box} at={[0.38, 0.74]} dash="1.5 2" />
        </>
      );
    case "journal":
      return (
        <>
          {outline("#ffffff")}
          <Guides box={box} at={writingLines(box.h)} />
        </>
      );
    case "cluster":
      return <path d={lobes(box)} fill="#ffffff" stroke={INK} strokeWidth={THIN} />;
    case "accent":
      return <path d={tag(box)} fill={paper ?? "#ffffff"} stroke={INK} strokeWidth={THIN} />;
    case "grid":
      return <GridUnits block={block} box={box} scale={scale} patterns={patterns} paperOf={paperOf} />;
    case "ring":
      return <RingUnits block={block} box={box} scale={scale} patterns={patterns} paperOf={paperOf} />;
    default:
      return outline("#ffffff");
  }
}

/** What a sheet of paper is cut for, whole. */
const PAPERED = new Set(["mat", "paper", "strip"]);

/** A photo: what shows of its print, or a grey place for one. */
function Photo({ block, box, scale, patterns }: { block: Drawn; box: BoxDoc; scale: number; patterns: string }) {
  const clip = useId();
  const plain = block.shape?.type === undefined || block.shape.type === "rect";
  const shows = usePhotoImages().has(block.photo ?? "") && Boolean(block.keep);
  const outline = (fill: string) => <Outline block={block} box={box} fill={fill} stroke={INK} strokeWidth={THIN} />;
  if (!shows) {
    return (
      <>
        {outline(`url(#${patterns}-photo)`)}
        {plain ? <CornerTicks box={box} /> : null}
      </>
    );
  }
  return (
    <>
      {!plain && (
        <clipPath id={clip}>
          <Outline block={block} box={box} />
        </clipPath>
      )}
      <g clipPath={plain ? undefined : `url(#${clip})`}>
        <PhotoInSlot block={block} box={box} scale={scale} />
      </g>
      {outline("none")}
    </>
  );
}

function Outline({ block, box, ...paint }: { block: Drawn; box: BoxDoc } & React.SVGProps<SVGElement>) {
  const style = paint as React.SVGProps<SVGPathElement>;
  const shape = block.shape;
  if (isRough(block.edge)) {
    return <path d={`M${ragged(corners(block, box), block.edge).join("L")}Z`} {...style} />;
  }
  if (shape?.type === "ellipse") {
    return (
      <ellipse
        cx={box.x + box.w / 2}
        cy={box.y + box.h / 2}
        rx={box.w / 2}
        ry={box.h / 2}
        {...(paint as React.SVGProps<SVGEllipseElement>)}
      />
    );
  }
  if (shape?.type === "polygon" || shape?.type === "triangle") {
    return <path d={`M${corners(block, box).join("L")}Z`} {...style} />;
  }
  return <rect x={box.x} y={box.y} width={box.w} height={box.h} {...(paint as React.SVGProps<SVGRectElement>)} />;
}

/** Points around a round shape where it is drawn as many short lines. */
const AROUND = 48;

/** The corners of a block's shape in its box; of a round one many points around it. */
function corners({ shape }: Pick<Drawn, "shape">, box: BoxDoc): Point[] {
  const around = (n: number): Point => [
    0.5 + Math.cos((n / AROUND) * 2 * Math.PI) / 2,
    0.5 + Math.sin((n / AROUND) * 2 * Math.PI) / 2,
  ];
  const shares = (): readonly (readonly number[])[] => {
    if (shape?.type === "polygon") return shape.points ?? [];
    if (shape?.type === "triangle") return triangle(shape.corner);
    if (shape?.type === "ellipse") return Array.from({ length: AROUND }, (_, n) => around(n));
    return WHOLE;
  };
  return shares().map(([x, y]) => [box.x + (x ?? 0) * box.w, box.y + (y ?? 0) * box.h]);
}

const WHOLE: Point[] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];

const CORNERS: Record<string, number[]> = {
  "top-left": [0, 0],
  "top-right": [1, 0],
  "bottom-left": [0, 1],
  "bottom-right": [1, 1],
};

/** The right angle's corner and its two neighbours. */
function triangle(corner: string | null | undefined): Point[] {
  const [x = 0, y = 0] = CORNERS[corner ?? ""] ?? [];
  return [
    [x, y],
    [1 - x, y],
    [x, 1 - y],
  ];
}

function CornerTicks({ box }: { box: BoxDoc }) {
  const inset = Math.min(3.5, box.w / 8, box.h / 8);
  const arm = Math.min(6, box.w / 6, box.h / 6);
  const l = box.x + inset;
  const r = box.x + box.w - inset;
  const t = box.y + inset;
  const b = box.y + box.h - inset;
  const d = [
    `M${l} ${t + arm}V${t}H${l + arm}`,
    `M${r - arm} ${t}H${r}V${t + arm}`,
    `M${r} ${b - arm}V${b}H${r - arm}`,
    `M${l + arm} ${b}H${l}V${b - arm}`,
  ];
  return <path d={d.join("")} fill="none" stroke={INK} strokeWidth={THIN} />;
}

/** Long dashes along a strip's run. */
function Dashes({ box }: { box: BoxDoc }) {
  const level = box.w >= box.h;
  const across = level ? box.h : box.w;
  const count = Math.max(1, Math.min(6, Math.floor(across / 6)));
  const lines = Array.from({ length: count }, (_, n) => {
    const at = ((n + 0.5) / count) * across;
    return level ? `M${box.x} ${box.y + at}H${box.x + box.w}` : `M${box.x + at} ${box.y}V${box.y + box.h}`;
  });
  return <path d={lines.join("")} fill="none" stroke="#9fb3c0" strokeWidth={1} strokeDasharray="10 4" />;
}

function writingLines(height: number): number[] {
  const count = Math.max(1, Math.min(12, Math.floor(height / 9)));
  return Array.from({ length: count }, (_, n) => (n + 1) / (count + 1));
}

function Guides({ box, at, dash }: { box: BoxDoc; at: number[]; dash?: string }) {
  const inset = Math.min(5, box.w / 10);
  const lines = at.map((share) => `M${box.x + inset} ${box.y + share * box.h}H${box.x + box.w - inset}`);
  return <path d={lines.join("")} fill="none" stroke={SECOND} strokeWidth={1} strokeDasharray={dash} />;
}

/** A closed outline of eight lobes in a box. */
function lobes(box: BoxDoc): string {
  const cx = box.x + box.w / 2;
  const cy = box.y + box.h / 2;
  const count = 9;
  const at = (turn: number, reach: number) => {
    const angle = (turn / count) * 2 * Math.PI - Math.PI / 2;
    return `${cx + (Math.cos(angle) * reach * box.w) / 2} ${cy + (Math.sin(angle) * reach * box.h) / 2}`;
  };
  let path = `M${at(-0.5, 0.84)}`;
  for (let n = 0; n < count; n++) path += `Q${at(n, 1.18)} ${at(n + 0.5, 0.84)}`;
  return `${path}Z`;
}

/** A label with a notch in its right end and a hole in its left. */
function tag(box: BoxDoc): string {
  const { x, y, w, h } = box;
  const notch = Math.min(w, h) * 0.3;
  const hole = Math.min(w, h) * 0.12;
  const hx = x + Math.min(w, h) * 0.35;
  return (
    `M${x} ${y}H${x + w}L${x + w - notch} ${y + h / 2}L${x + w} ${y + h}H${x}Z` +
    `M${hx - hole} ${y + h / 2}a${hole} ${hole} 0 1 0 ${2 * hole} 0a${hole} ${hole} 0 1 0 ${-2 * hole} 0Z`
  );
}

function Unit({ box, round, fill }: { box: BoxDoc; round: boolean; fill: string }) {
  return round ? (
    <ellipse
      cx={box.x + box.w / 2}
      cy={box.y + box.h / 2}
      rx={box.w / 2}
      ry={box.h / 2}
      fill={fill}
      stroke={INK}
      strokeWidth={0.8}
    />
  ) : (
    <rect x={box.x} y={box.y} width={box.w} height={box.h} fill={fill} stroke={INK} strokeWidth={0.8} />
  );
}

/** A grid's real units; every second row of a staggered one is shifted, its end units cut off at the box. */
function GridUnits({ block, box, scale, patterns, paperOf }: Shaped & { box: BoxDoc }) {
  const grid = block.grid ?? { cols: 1, rows: 1, gap: 0, stagger: 0 };
  const gap = (grid.gap ?? 0) * scale;
  const w = (box.w - gap * (grid.cols - 1)) / grid.cols;
  const h = (box.h - gap * (grid.rows - 1)) / grid.rows;
  const units: { key: string; box: BoxDoc; fill: string }[] = [];
  for (let row = 0; row < grid.rows; row++) {
    const shift = row % 2 === 1 ? (grid.stagger ?? 0) : 0;
    for (let col = shift ? -1 : 0; col < grid.cols; col++) {
      const left = Math.max(box.x, box.x + (col + shift) * (w + gap));
      const right = Math.min(box.x + box.w, box.x + (col + shift) * (w + gap) + w);
      const name = `${row + 1}/${col + (shift ? 2 : 1)}`;
      const fill = paperOf?.(name) ?? ((row + col) % 2 === 0 ? "#ffffff" : `url(#${patterns}-hatch)`);
      if (right - left > 0.5) {
        units.push({ key: `${row}-${col}`, box: { x: left, y: box.y + row * (h + gap), w: right - left, h }, fill });
      }
    }
  }
  return units.map((u) => <Unit key={u.key} box={u.box} round={grid.unit_shape === "circle"} fill={u.fill} />);
}

function RingUnits({ block, box, scale, paperOf }: Shaped & { box: BoxDoc }) {
  const ring = block.ring ?? { count: 1, unit: 1 };
  const unit = ring.unit * scale;
  const rx = (box.w - unit) / 2;
  const ry = (box.h - unit) / 2;
  return Array.from({ length: ring.count }, (_, n) => {
    const angle = (n / ring.count) * 2 * Math.PI;
    const x = box.x + box.w / 2 + Math.sin(angle) * rx - unit / 2;
    const y = box.y + box.h / 2 - Math.cos(angle) * ry - unit / 2;
    const key = `${ring.count}-${n}`;
    const fill = paperOf?.(String(n + 1)) ?? "#ffffff";
    return <Unit key={key} box={{ x, y, w: unit, h: unit }} round={ring.unit_shape === "circle"} fill={fill} />;
  });
}

/** The name under which the textures are known everywhere: they are drawn once for all pages and thumbnails. */
export const PATTERNS = "texture";

/** The textures that blocks are filled with, once for the whole screen. */
export function SharedPatterns() {
  return (
    <svg width="0" height="0" aria-hidden="true" className="absolute">
      <Patterns id={PATTERNS} />
    </svg>
  );
}

function Patterns({ id }: { id: string }) {
  return (
    <defs>
      <linearGradient id={`${id}-photo`} x1="0" y1="0" x2="0" y2="1">
        <stop offset="0" stopColor="#c9d6df" />
        <stop offset="1" stopColor="#a9bbc8" />
      </linearGradient>
      <pattern id={`${id}-hatch`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V6" stroke="#9fb3c0" strokeWidth="1.6" />
      </pattern>
      <pattern id={`${id}-stipple`} width="7" height="7" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="0.8" fill="#8093a3" />
        <circle cx="5" cy="5" r="0.8" fill="#8093a3" />
      </pattern>
    </defs>
  );
}
