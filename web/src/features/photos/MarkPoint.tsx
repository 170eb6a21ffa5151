import { useDrag } from "@use-gesture/react";
import { useState } from "react";

type Point = { x: number; y: number };

type Props = {
  mark: Point;
  /** The print's size in pixels. */
  w: number;
  h: number;
  onMove: ((mark: Point) => void) | undefined;
};

/** A step of the arrow keys, in shares of the print. */
const STEP = 0.02;
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The point that matters on a print: the window keeps about it. It is moved by hand or with arrow keys. */
export function MarkPoint({ mark, w, h, onMove }: Props) {
  const [held, setHeld] = useState<Point>();
  const now = held ?? mark;
  const within = (share: number) => Math.round(Math.min(Math.max(share, 0), 1) * 1e4) / 1e4;
  const drag = useDrag(
    ({ movement: [dx, dy], last, tap }) => {
      if (!onMove || tap) return;
      const next = { x: within(mark.x + dx / w), y: within(mark.y + dy / h) };
      setHeld(last ? undefined : next);
      if (last) onMove(next);
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  const [x, y] = [now.x * w, now.y * h];
  return (
    <g
      role="slider"
      aria-label="The point that matters: arrow keys move it"
      aria-valuenow={Math.round(now.x * 100)}
      aria-valuetext={`${Math.round(now.x * 100)} % from the left, ${Math.round(now.y * 100)} % from the top`}
      tabIndex={onMove ? 0 : -1}
      className={onMove ? "cursor-move" : ""}
      onKeyDown={(e) => {
        const [dx, dy] = ARROWS[e.key] ?? [0, 0];
        if (!onMove || (dx === 0 && dy === 0)) return;
        e.preventDefault();
        onMove({ x: within(mark.x + dx * STEP), y: within(mark.y + dy * STEP) });
      }}
      {...drag()}
    >
      <circle cx={x} cy={y} r={14} fill="transparent" />
      <circle cx={x} cy={y} r={8} fill="none" stroke="#ffffff" strokeWidth={4} />
      <circle cx={x} cy={y} r={8} fill="none" stroke="#17263b" strokeWidth={2} />
      <path d={`M${x - 13} ${y}H${x + 13}M${x} ${y - 13}V${y + 13}`} stroke="#17263b" strokeWidth={1.5} />
    </g>
  );
}
