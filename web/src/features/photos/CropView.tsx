import { useDrag } from "@use-gesture/react";
import { useRef, useState } from "react";
import type { PlacedPhotoDoc, PlanDoc, PrintDoc } from "@/api/client";
import { TurnedImage } from "@/shared/drawing/photoImages";
import { LengthSpans } from "@/shared/ui/Length";
import { AreaBox } from "./AreaBox";
import { MarkPoint } from "./MarkPoint";
import { unitOfPlan, withPrint, withWindow } from "./model";

type Props = {
  plan: PlanDoc;
  print: PrintDoc;
  placed: PlacedPhotoDoc | undefined;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
};

/** The room for a print, in pixels, and what is kept round it for its measures. */
const ROOM = { w: 240, h: 250 };
const ROUND = 44;

/** A print large, what of it shows clear and the rest veiled, its cuts numbered in their order. The window follows the hand and arrow keys. */
export function CropView({ plan, print, placed, change, mayChange }: Props) {
  const unit = unitOfPlan(plan);
  // A file lies here at the size that it is printed at.
  const size = placed?.size ?? { w: print.w, h: print.h };
  const scale = Math.min(ROOM.w / size.w, ROOM.h / size.h);
  const [w, h] = [size.w * scale, size.h * scale];
  const [held, setHeld] = useState<{ x: number; y: number }>();
  const shown = placed && { ...placed.window, ...held };
  const box = shown && { x: shown.x * scale, y: shown.y * scale, w: shown.w * scale, h: shown.h * scale };
  // Keys pressed faster than the page is laid out again add up.
  const asked = useRef<{ from: PlacedPhotoDoc; x: number; y: number }>(undefined);
  const put = (x: number, y: number) => {
    if (placed) asked.current = { from: placed, x, y };
    if (placed) change(withWindow(plan, placed, x, y), `print ${print.id}: window moved`);
  };
  const drag = useDrag(
    ({ movement: [dx, dy], last, tap }) => {
      if (!placed || !mayChange || tap) return;
      const within = (at: number, most: number) => Math.min(Math.max(at, 0), Math.max(0, most));
      const x = within(placed.window.x + dx / scale, size.w - placed.window.w);
      const y = within(placed.window.y + dy / scale, size.h - placed.window.h);
      setHeld(last ? undefined : { x, y });
      if (last) put(x, y);
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  const step = unit === "in" ? 1 / 8 : 2;
  const onKey = (e: React.KeyboardEvent) => {
    const by = e.shiftKey ? step / 4 : step;
    const [dx, dy] = ARROWS[e.key] ?? [0, 0];
    if (!placed || !mayChange || (dx === 0 && dy === 0)) return;
    e.preventDefault();
    const last = asked.current?.from === placed ? asked.current : placed.window;
    put(last.x + dx * by, last.y + dy * by);
  };
  const area = (field: "faces" | "covers") => (n: number, next: NonNullable<PrintDoc["faces"]>[number]) => {
    const list = (print[field] ?? []).map((a, k) => (k === n ? next : a));
    change(withPrint(plan, print.id, { [field]: list }), `print ${print.id}: an area moved`);
  };
  return (
    // biome-ignore lint/a11y/noSvgWithoutTitle: the heading above names it, and what is in it is moved
    <svg
      width={ROOM.w + 2 * ROUND + 16}
      height={h + 52}
      className="mx-auto block max-w-full touch-none"
      aria-labelledby="print-in-hand"
    >
      <g transform={`translate(${ROUND + (ROOM.w - w) / 2} 24)`}>
        {print.picture ? (
          <TurnedImage picture={print.picture} turned={print.turned ?? 0} box={{ x: 0, y: 0, w, h }} />
        ) : (
          <rect width={w} height={h} fill="url(#texture-photo)" />
        )}
        <rect width={w} height={h} fill="none" stroke="#17263b" strokeDasharray={print.file ? "5 4" : undefined} />
        {box && (
          <path
            d={`M0 0H${w}V${h}H0ZM${box.x} ${box.y}V${box.y + box.h}H${box.x + box.w}V${box.y}Z`}
            fill="#ffffff"
            fillOpacity={0.62}
          />
        )}
        <text x={w / 2} y={-8} textAnchor="middle" fontSize={13} className="fill-second">
          <LengthSpans value={size.w} unit={unit} />
        </text>
        <text x={-8} y={h / 2} dy="0.35em" textAnchor="end" fontSize={13} className="fill-second">
          <LengthSpans value={size.h} unit={unit} />
        </text>
        {box && (
          <rect
            role="slider"
            aria-valuenow={Math.round(box.x)}
            aria-valuetext={`${Math.round((box.x / w) * 100)} % from the left, ${Math.round((box.y / h) * 100)} % from the top`}
            aria-label={`The window on print ${print.id}: arrow keys move it, with Shift by less`}
            tabIndex={mayChange ? 0 : -1}
            x={box.x}
            y={box.y}
            width={box.w}
            height={box.h}
            fill="transparent"
            stroke="#c2185b"
            strokeWidth={2}
            className={mayChange ? "cursor-move" : ""}
            onKeyDown={onKey}
            {...drag()}
          />
        )}
        {(print.covers ?? []).map((a, n) => (
          <AreaBox
            // biome-ignore lint/suspicious/noArrayIndexKey: an area that is moved is the same one
            key={`cover-${n}`}
            kind="cover"
            area={a}
            w={w}
            h={h}
            onMove={mayChange ? (next) => area("covers")(n, next) : undefined}
          />
        ))}
        {(print.faces ?? []).map((a, n) => (
          <AreaBox
            // biome-ignore lint/suspicious/noArrayIndexKey: an area that is moved is the same one
            key={`keep-${n}`}
            kind="keep"
            area={a}
            w={w}
            h={h}
            cut={placed?.cut.some((c) => c.area === n) ?? false}
            onMove={mayChange ? (next) => area("faces")(n, next) : undefined}
          />
        ))}
        {print.mark && (
          <MarkPoint
            mark={print.mark}
            w={w}
            h={h}
            onMove={
              mayChange
                ? (mark) => change(withPrint(plan, print.id, { mark }), `print ${print.id}: another point matters`)
                : undefined
            }
          />
        )}
        {box && placed && !held && <Cuts placed={placed} box={box} w={w} h={h} unit={unit} />}
      </g>
    </svg>
  );
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

type CutsProps = {
  placed: PlacedPhotoDoc;
  box: { x: number; y: number; w: number; h: number };
  w: number;
  h: number;
  unit: "in" | "mm";
};

/** The cuts in their order: a line through the print each, with its number and how much comes off. */
function Cuts({ placed, box, w, h, unit }: CutsProps) {
  return (
    <g aria-hidden style={{ pointerEvents: "none" }}>
      {placed.trims.map((trim, n) => {
        const level = trim.side === "top" || trim.side === "bottom";
        const at = { top: box.y, bottom: box.y + box.h, left: box.x, right: box.x + box.w }[trim.side] ?? 0;
        const line = level ? `M-6 ${at}H${w + 10}` : `M${at} -6V${h + 10}`;
        const [x, y] = level ? [w + 18, at] : [at, h + 14];
        return (
          <g key={trim.side}>
            <path d={line} stroke="#c2185b" strokeWidth={1.5} strokeDasharray={level ? undefined : "3 2"} />
            <circle cx={x} cy={y} r={8} fill="#c2185b" />
            <text x={x} y={y} dy="0.35em" textAnchor="middle" fontSize={11} fontWeight={700} fill="#ffffff">
              {n + 1}
            </text>
            <text x={x + 12} y={y} dy="0.35em" fontSize={13} fontWeight={700} className="fill-ink">
              <LengthSpans value={trim.off} unit={unit} />
            </text>
          </g>
        );
      })}
    </g>
  );
}
