import { useId } from "react";
import type { BoxDoc, StashItemView } from "@/api/client";
import { usePaperFills } from "@/shared/drawing/papers";
import { inUnit, lookOf } from "./looks";

type Size = { w: number; h: number };

/** No thing is drawn smaller than this, in pixels. */
const LEAST = 16;
/** How far the sheets of a stack lie from one another. */
const STEP = 2.5;

/** How large a thing is drawn, in pixels. */
export function drawnSize(thing: StashItemView, perInch: number): Size {
  const { size, unit } = thing.item;
  const side = (v: number | undefined) => Math.max(LEAST, inUnit(v ?? 1, unit, "in") * perInch);
  return { w: side(size?.w), h: side(size?.h) };
}

/** A sheet, card or scrap to scale: its true shape, its printed strip hatched, the other side at the corner, a stack where there are more,
 * a bookmark for each page that holds some. */
export function ThingDrawing({
  thing,
  perInch,
  holds = true,
}: {
  thing: StashItemView;
  perInch: number;
  holds?: boolean;
}) {
  const { item } = thing;
  const id = useId();
  const a = lookOf(item, "a", "in");
  const b = item.b ? lookOf(item, "b", "in") : undefined;
  const { defs, fill } = usePaperFills(b ? [a, b] : [a], perInch);
  const { w, h } = drawnSize(thing, perInch);
  const stack = Math.max(0, Math.min(3, item.count) - 1) * STEP;
  const shape = shapeOf(item.bites ?? [], w, h, (v) => inUnit(v, item.unit, "in") * perInch);
  const fold = item.b && !item.bites?.length ? Math.min(w, h) * 0.2 : 0;
  const folded = `M0 0H${w - fold}L${w} ${fold}V${h}H0Z`;
  const body = fold > 0 ? { fill: folded, edge: folded } : shape;
  return (
    <svg width={w + stack + 2} height={h + stack + 8} aria-hidden="true" className="block">
      <defs>
        {defs}
        <pattern id={`${id}-strip`} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill="#ffffff" />
          <path d="M0 0V5" stroke="#51617a" strokeWidth="1.8" />
        </pattern>
        <clipPath id={`${id}-body`}>
          <path d={body.fill} />
        </clipPath>
      </defs>
      <g transform="translate(1 6)">
        {stack > 0 &&
          [...Array(Math.round(stack / STEP)).keys()]
            .reverse()
            .map((n) => (
              <path
                key={n}
                d={shape.fill}
                transform={`translate(${(n + 1) * STEP} ${(n + 1) * STEP})`}
                fill="#ffffff"
                stroke="#8b98a5"
              />
            ))}
        <path d={body.fill} fill={item.count > 0 ? fill(a) : "none"} />
        <path d={body.edge} fill="none" stroke="#51617a" strokeDasharray={item.count > 0 ? undefined : "4 3"} />
        {item.strip && (
          <g clipPath={`url(#${id}-body)`}>
            <Strip strip={item.strip} w={w} h={h} perInch={perInch} unit={item.unit} fill={`url(#${id}-strip)`} />
          </g>
        )}
        {b && fold > 0 && <path d={`M${w - fold} 0V${fold}H${w}Z`} fill={fill(b)} stroke="#51617a" strokeWidth={0.8} />}
        {holds &&
          thing.holds
            .slice(0, 3)
            .map((hold, n) => (
              <path
                key={hold.page}
                transform={`translate(${8 + n * 15} -6)`}
                d="M0 0H11V18L5.5 13 0 18Z"
                fill={hold.held < hold.wanted ? "#c2185b" : "#0b7d69"}
                stroke="#ffffff"
                strokeWidth={0.8}
              />
            ))}
      </g>
    </svg>
  );
}

function Strip({
  strip,
  w,
  h,
  perInch,
  unit,
  fill,
}: {
  strip: { edge: string; width: number };
  w: number;
  h: number;
  perInch: number;
  unit: string;
  fill: string;
}) {
  const wide = inUnit(strip.width, unit, "in") * perInch;
  const boxes: Record<string, [number, number, number, number]> = {
    bottom: [0, h - wide, w, wide],
    top: [0, 0, w, wide],
    left: [0, 0, wide, h],
    right: [w - wide, 0, wide, h],
  };
  const [x, y, width, height] = boxes[strip.edge] ?? [0, 0, 0, 0];
  return <rect x={x} y={y} width={width} height={height} fill={fill} stroke="#51617a" strokeWidth={0.6} />;
}

type Shape = { fill: string; edge: string };

/** A sheet with bites out of it: what there is of it, and the edges of that. */
function shapeOf(bites: readonly BoxDoc[], w: number, h: number, px: (v: number) => number): Shape {
  if (bites.length === 0) return { fill: `M0 0H${w}V${h}H0Z`, edge: `M0 0H${w}V${h}H0Z` };
  const xs = sorted([0, w, ...bites.flatMap((b) => [px(b.x), px(b.x + b.w)])], w);
  const ys = sorted([0, h, ...bites.flatMap((b) => [px(b.y), px(b.y + b.h)])], h);
  const there = (c: number, r: number) => {
    if (c < 0 || r < 0 || c + 1 >= xs.length || r + 1 >= ys.length) return false;
    const [x, y] = [((xs[c] ?? 0) + (xs[c + 1] ?? 0)) / 2, ((ys[r] ?? 0) + (ys[r + 1] ?? 0)) / 2];
    return !bites.some((b) => x > px(b.x) && x < px(b.x + b.w) && y > px(b.y) && y < px(b.y + b.h));
  };
  let [fill, edge] = ["", ""];
  for (let r = 0; r + 1 < ys.length; r += 1) {
    for (let c = 0; c + 1 < xs.length; c += 1) {
      if (!there(c, r)) continue;
      const [left, right, top, bottom] = [xs[c], xs[c + 1], ys[r], ys[r + 1]];
      fill += `M${left} ${top}H${right}V${bottom}H${left}Z`;
      if (!there(c, r - 1)) edge += `M${left} ${top}H${right}`;
      if (!there(c, r + 1)) edge += `M${left} ${bottom}H${right}`;
      if (!there(c - 1, r)) edge += `M${left} ${top}V${bottom}`;
      if (!there(c + 1, r)) edge += `M${right} ${top}V${bottom}`;
    }
  }
  return { fill, edge };
}

const sorted = (places: number[], most: number) =>
  [...new Set(places.filter((p) => p >= 0 && p <= most))].sort((a, b) => a - b);
