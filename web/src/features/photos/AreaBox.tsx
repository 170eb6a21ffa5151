import { useDrag } from "@use-gesture/react";
import { useState } from "react";
import type { FaceDoc } from "@/api/client";
import { areaWithin } from "./model";

type Props = {
  kind: "keep" | "cover";
  area: FaceDoc;
  /** The print's size in pixels. */
  w: number;
  h: number;
  cut?: boolean;
  onMove: ((area: FaceDoc) => void) | undefined;
};

const LOOK = {
  keep: { stroke: "#0b7d69", word: "keep", says: "Area to keep" },
  cover: { stroke: "#17263b", word: "cover", says: "Area to hide" },
} as const;
/** A step of the arrow keys, in shares of the print. */
const STEP = 0.02;

/** An area on a print with its flag. It is moved by its flag and made larger by its corner; with arrow keys, and Shift for its size. */
export function AreaBox({ kind, area, w, h, cut = false, onMove }: Props) {
  const [held, setHeld] = useState<FaceDoc>();
  const now = held ?? area;
  const { stroke, word, says } = LOOK[kind];
  const follow =
    (of: (dx: number, dy: number) => FaceDoc) =>
    ({ movement: [dx, dy], last, tap }: { movement: [number, number]; last: boolean; tap: boolean }) => {
      if (!onMove || tap) return;
      const next = areaWithin(of(dx / w, dy / h));
      setHeld(last ? undefined : next);
      if (last) onMove(next);
    };
  const move = useDrag(
    follow((dx, dy) => ({ ...area, x: area.x + dx, y: area.y + dy })),
    { filterTaps: true, pointer: { keys: false } },
  );
  const grow = useDrag(
    follow((dx, dy) => ({ ...area, w: area.w + dx, h: area.h + dy })),
    { filterTaps: true, pointer: { keys: false } },
  );
  const onKey = (e: React.KeyboardEvent) => {
    const [dx, dy] = ARROWS[e.key] ?? [0, 0];
    if (!onMove || (dx === 0 && dy === 0)) return;
    e.preventDefault();
    const next = e.shiftKey
      ? { ...area, w: area.w + dx * STEP, h: area.h + dy * STEP }
      : { ...area, x: area.x + dx * STEP, y: area.y + dy * STEP };
    onMove(areaWithin(next));
  };
  const [x, y, bw, bh] = [now.x * w, now.y * h, now.w * w, now.h * h];
  const flag = word.length * 7 + 6;
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={bw}
        height={bh}
        fill={kind === "cover" ? "url(#texture-hatch)" : "none"}
        fillOpacity={0.7}
        stroke={cut ? "#c2185b" : stroke}
        strokeWidth={2}
        strokeDasharray={kind === "cover" ? "4 3" : undefined}
        style={{ pointerEvents: "none" }}
      />
      <g
        role="slider"
        aria-label={`${says}: arrow keys move it, with Shift they change its size`}
        aria-valuenow={Math.round(now.x * 100)}
        aria-valuetext={`${Math.round(now.x * 100)} % from the left, ${Math.round(now.y * 100)} % from the top`}
        tabIndex={onMove ? 0 : -1}
        className={onMove ? "cursor-move" : ""}
        onKeyDown={onKey}
        {...move()}
      >
        <rect x={x - 1} y={y - 14} width={flag} height={15} fill={cut ? "#c2185b" : stroke} />
        <text
          x={x - 1 + flag / 2}
          y={y - 6.5}
          dy="0.35em"
          textAnchor="middle"
          fontSize={11}
          fontWeight={600}
          fill="#ffffff"
        >
          {word}
        </text>
      </g>
      {onMove && (
        <rect
          x={x + bw - 7}
          y={y + bh - 7}
          width={12}
          height={12}
          fill="#ffffff"
          stroke={stroke}
          strokeWidth={1.5}
          className="cursor-nwse-resize"
          aria-hidden
          {...grow()}
        />
      )}
    </g>
  );
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
