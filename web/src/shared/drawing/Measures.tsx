import type { BoxDoc, LayoutDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { LengthSpans } from "@/shared/ui/Length";
import { type Label, measureLabels, measureLines, type Spot } from "./measureLabels";

const PINK = "#c2185b";
const DARK = "#17263b";

type Props = {
  boxes: readonly BoxDoc[];
  canvas: LayoutDoc["canvas"];
  unit: Unit;
  scale: number;
  bounds: { w: number; h: number };
  /** Where the blocks' numbers are: no label lies on one. */
  numbers?: readonly Spot[];
  /** Its lines or its labels alone, for what is drawn between them. */
  only?: "lines" | "labels";
};

/** Blocks' distances, as flags with end dots: from their page's left and right edge (one is the fold), from top and bottom. */
export function Measures({ boxes, canvas, unit, scale, bounds, numbers = [], only }: Props) {
  const drawn = boxes.map((box) => ({ box, canvas, unit, scale, bounds }));
  const taken: Label[] = [];
  return (
    <g aria-hidden style={{ pointerEvents: "none" }}>
      {only !== "labels" &&
        drawn.map((d) => (
          <g key={`${d.box.x} ${d.box.y}`}>
            <rect
              x={d.box.x * scale}
              y={d.box.y * scale}
              width={d.box.w * scale}
              height={d.box.h * scale}
              fill="none"
              stroke={PINK}
              strokeWidth={2}
            />
            {measureLines(d).map((l) => (
              <Line key={l.key} from={l.from} to={l.to} />
            ))}
          </g>
        ))}
      {only !== "lines" &&
        drawn.map((d) => {
          const { size, flags, laid } = measureLabels(d, numbers, taken);
          taken.push(...laid);
          return (
            <g key={`${d.box.x} ${d.box.y}`}>
              {flags.map(({ line, at }) => (
                <Flag key={line.key} at={at} fill={PINK}>
                  <LengthSpans value={line.value} unit={unit} />
                </Flag>
              ))}
              <Flag at={size} fill={DARK}>
                <LengthSpans value={d.box.w} unit={unit} /> × <LengthSpans value={d.box.h} unit={unit} />
              </Flag>
            </g>
          );
        })}
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

function Flag({ at, fill, children }: { at: Label; fill: string; children: React.ReactNode }) {
  return (
    <g>
      <rect x={at.x - at.w / 2} y={at.y - at.h / 2} width={at.w} height={at.h} rx={2} fill={fill} />
      <text x={at.x} y={at.y} dy="0.35em" textAnchor="middle" fontSize={13} fontWeight={600} fill="#ffffff">
        {children}
      </text>
    </g>
  );
}
