import type { BoxDoc, LayoutDoc } from "@/api/client";
import { rulerText, toTicks, type Unit } from "@/shared/lengths/length";
import { LengthSpans } from "@/shared/ui/Length";

const PINK = "#c2185b";

type Props = {
  box: BoxDoc;
  canvas: LayoutDoc["canvas"];
  unit: Unit;
  scale: number;
  bounds: { w: number; h: number };
  /** Its lines or its numbers alone, for what is drawn between them. */
  only?: "lines" | "numbers";
};

/** A block's distances, as flags with end dots: from its page's left and right edge (one is the fold), from top and bottom. */
export function Measures({ box, canvas, unit, scale, bounds, only }: Props) {
  const { page } = canvas;
  const start = canvas.pages === 2 && box.x + box.w / 2 > page.w ? page.w : 0;
  const x0 = box.x * scale;
  const x1 = (box.x + box.w) * scale;
  const y0 = box.y * scale;
  const y1 = (box.y + box.h) * scale;
  const cx = clamp((x0 + x1) / 2, 8, bounds.w - 8);
  const cy = clamp((y0 + y1) / 2, 8, bounds.h - 8);
  const lines = [
    { key: "left", from: [start * scale, cy], to: [x0, cy], value: box.x - start },
    { key: "right", from: [x1, cy], to: [(start + page.w) * scale, cy], value: start + page.w - box.x - box.w },
    { key: "top", from: [cx, 0], to: [cx, y0], value: box.y },
    { key: "bottom", from: [cx, y1], to: [cx, bounds.h], value: page.h - box.y - box.h },
  ].filter((l) => toTicks(l.value, unit) > 0);
  return (
    <g aria-hidden style={{ pointerEvents: "none" }}>
      {only !== "numbers" && (
        <>
          <rect x={x0} y={y0} width={x1 - x0} height={y1 - y0} fill="none" stroke={PINK} strokeWidth={2} />
          {lines.map((l) => (
            <Line key={l.key} from={l.from} to={l.to} />
          ))}
        </>
      )}
      {only !== "lines" && (
        <>
          {lines.map((l) => (
            <Flag key={l.key} from={l.from} to={l.to} value={l.value} unit={unit} bounds={bounds} />
          ))}
          <Size box={box} unit={unit} x={x0} y={y0} h={y1 - y0} from={start * scale} until={(start + page.w) * scale} />
        </>
      )}
    </g>
  );
}

type SizeProps = { box: BoxDoc; unit: Unit; x: number; y: number; h: number; from: number; until: number };

/** A flag in the middle of its line and a size above the block need this much, in pixels. */
const FLAG_AND_SIZE = 58;

/** Width by height, on a label at the block's top left corner; it keeps to the block's page, clear of a part's on the other one. */
function Size({ box, unit, x, y, h, from, until }: SizeProps) {
  const text = [box.w, box.h].map((side) => rulerText(toTicks(side, unit), unit)).join(" × ");
  const w = text.length * 6 + 10;
  const left = clamp(x, from, until - w - 1);
  // Above the block, clear of the flag that tells its distance from the top; inside it where there is no room for both.
  const isTight = y < FLAG_AND_SIZE && h >= FLAG_AND_SIZE;
  const top = y >= 20 && !isTight ? y - 19 : y + 1;
  return (
    <g>
      <rect x={left} y={top} width={w} height={18} rx={2} fill="#17263b" />
      <text x={left + w / 2} y={top + 9} dy="0.35em" textAnchor="middle" fontSize={13} fontWeight={600} fill="#ffffff">
        <LengthSpans value={box.w} unit={unit} /> × <LengthSpans value={box.h} unit={unit} />
      </text>
    </g>
  );
}

/** From an edge to a block, with a dot at either end. */
function Line({ from, to }: { from: readonly number[]; to: readonly number[] }) {
  return (
    <>
      <path d={`M${from.join(" ")}L${to.join(" ")}`} stroke={PINK} strokeWidth={1.5} />
      {[from, to].map(([x, y]) => (
        <circle key={`${x} ${y}`} cx={x} cy={y} r={3} fill={PINK} />
      ))}
    </>
  );
}

type FlagProps = { from: number[]; to: number[]; value: number; unit: Unit; bounds: { w: number; h: number } };

function Flag({ from, to, value, unit, bounds }: FlagProps) {
  const [x0 = 0, y0 = 0] = from;
  const [x1 = 0, y1 = 0] = to;
  const w = rulerText(toTicks(value, unit), unit).length * 6 + 14;
  const level = y0 === y1;
  // A flag stands on its line; on a short level one it is lifted off it, so that the dots stay in sight.
  const lift = level && Math.abs(x1 - x0) < w + 10 ? -13 : 0;
  const shift = !level && Math.abs(y1 - y0) < 26 ? w / 2 + 5 : 0;
  const x = clamp((x0 + x1) / 2 + shift, w / 2 + 1, bounds.w - w / 2 - 1);
  const y = clamp((y0 + y1) / 2 + lift, 9, bounds.h - 9);
  return (
    <g>
      <rect x={x - w / 2} y={y - 9} width={w} height={18} rx={2} fill={PINK} />
      <text x={x} y={y} dy="0.35em" textAnchor="middle" fontSize={13} fontWeight={600} fill="#ffffff">
        <LengthSpans value={value} unit={unit} />
      </text>
    </g>
  );
}

function clamp(value: number, least: number, most: number): number {
  return Math.min(Math.max(value, least), Math.max(least, most));
}
