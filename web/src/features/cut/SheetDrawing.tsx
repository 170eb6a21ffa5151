import type { CutSheetDoc } from "@/api/client";
import { type PaperLook, usePaperFills } from "@/shared/drawing/papers";
import type { Unit } from "@/shared/lengths/length";
import { LengthSpans } from "@/shared/ui/Length";
import { type Area, lineOf, partsOf } from "./model";

type Props = {
  sheet: CutSheetDoc;
  look: PaperLook;
  labelOf: (piece: string) => string;
  unit: Unit;
  /** Pixels a unit. */
  scale: number;
  /** The step in hand, whose lines are drawn in full. */
  step?: number | undefined;
  /** Without names, numbers and sizes. */
  small?: boolean;
  name: string;
};

/** Room for the numbers of cuts beside the sheet. */
const BESIDE = 18;

/** A sheet to scale with its cuts: pieces in full colour, rests veiled with their size, spoiled edges hatched. */
export function SheetDrawing({ sheet, look, labelOf, unit, scale, step, small = false, name }: Props) {
  const { defs, fill } = usePaperFills([look], scale);
  const parts = partsOf(sheet);
  const edge = small ? 1 : BESIDE;
  const [w, h] = [sheet.w * scale, sheet.h * scale];
  return (
    <svg width={w + 2 * edge} height={h + 2 * edge} role="img" aria-label={name} className="block">
      <defs>
        {defs}
        <pattern id="spoiled" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V5" stroke="#17263b" strokeWidth="1.4" />
        </pattern>
      </defs>
      <g transform={`translate(${edge} ${edge})`}>
        <rect width={w} height={h} fill={fill(look) ?? "#ffffff"} stroke="#17263b" />
        <rect width={w} height={h} fill="#ffffff" fillOpacity={0.68} />
        {sheet.pieces.map((piece) => (
          <Piece key={piece.name} area={piece} fill={fill(look) ?? "#ffffff"} scale={scale}>
            {!small && (
              <Named area={piece} scale={scale}>
                {sheet.wrong.includes(piece.name) ? `${labelOf(piece.name)}, cut wrong` : labelOf(piece.name)}
              </Named>
            )}
          </Piece>
        ))}
        {!small && sheet.rests.map((rest) => <Size key={rest.part} area={rest} unit={unit} scale={scale} />)}
        {sheet.spoiled.map((area) => (
          <rect
            key={`${area.x}-${area.y}`}
            {...scaledRect(area, scale)}
            fill="url(#spoiled)"
            stroke="#17263b"
            strokeWidth={0.8}
          />
        ))}
        {!small &&
          sheet.steps.map((s, n) => (
            <g key={s.first} opacity={s.first + s.times <= sheet.done ? 0.35 : 1}>
              {sheet.cuts.slice(s.first, s.first + s.times).map((cut, k) => {
                const line = lineOf(sheet, parts, s.first + k);
                return line && <Line key={cut.part} line={line} scale={scale} full={n === step} number={n + 1} />;
              })}
            </g>
          ))}
      </g>
    </svg>
  );
}

const scaledRect = (area: Area, scale: number) => ({
  x: area.x * scale,
  y: area.y * scale,
  width: area.w * scale,
  height: area.h * scale,
});

function Piece({
  area,
  fill,
  scale,
  children,
}: {
  area: Area;
  fill: string;
  scale: number;
  children: React.ReactNode;
}) {
  return (
    <g>
      <rect {...scaledRect(area, scale)} fill={fill} stroke="#17263b" strokeWidth={1.2} />
      {children}
    </g>
  );
}

/** A piece's name in its middle, on white, so that it is read on any paper. */
function Named({ area, scale, children }: { area: Area; scale: number; children: string }) {
  const [x, y] = [(area.x + area.w / 2) * scale, (area.y + area.h / 2) * scale];
  const width = children.length * 7 + 14;
  if (area.w * scale < 16 || area.h * scale < 14) return null;
  const turned = width > area.w * scale && area.h > area.w;
  return (
    <g transform={turned ? `rotate(-90 ${x} ${y})` : undefined}>
      <rect x={x - width / 2} y={y - 10} width={width} height={20} rx={10} fill="#ffffff" stroke="#17263b" />
      <text x={x} y={y + 4.5} textAnchor="middle" fontSize={12.5} fontWeight={600} fill="#17263b">
        {children}
      </text>
    </g>
  );
}

function Size({ area, unit, scale }: { area: Area; unit: Unit; scale: number }) {
  if (area.w * scale < 84 || area.h * scale < 24) return null;
  const [x, y] = [(area.x + area.w / 2) * scale, (area.y + area.h / 2) * scale];
  return (
    <g>
      <rect x={x - 44} y={y - 10} width={88} height={20} fill="#ffffff" />
      <text x={x} y={y + 4.5} textAnchor="middle" fontSize={12.5} fill="#17263b">
        <LengthSpans value={area.w} unit={unit} /> × <LengthSpans value={area.h} unit={unit} />
      </text>
    </g>
  );
}

type LineProps = {
  line: { x1: number; y1: number; x2: number; y2: number };
  scale: number;
  full: boolean;
  number: number;
};

/** A cut with its step's number at its beginning. */
function Line({ line, scale, full, number }: LineProps) {
  const [x1, y1, x2, y2] = [line.x1 * scale, line.y1 * scale, line.x2 * scale, line.y2 * scale];
  const level = y1 === y2;
  const [x, y] = level ? [x1 - 4, y1] : [x1, y1 - 4];
  return (
    <g>
      <path d={`M${x1} ${y1}L${x2} ${y2}`} stroke="#ffffff" strokeWidth={full ? 6 : 4} />
      <path
        d={`M${x1} ${y1}L${x2} ${y2}`}
        stroke="#c2185b"
        strokeWidth={full ? 3 : 1.6}
        strokeDasharray={full ? undefined : "6 4"}
      />
      <circle cx={x} cy={y} r={9} fill="#c2185b" stroke="#ffffff" />
      <text x={x} y={y + 4} textAnchor="middle" fontSize={11.5} fontWeight={700} fill="#ffffff">
        {number}
      </text>
    </g>
  );
}
