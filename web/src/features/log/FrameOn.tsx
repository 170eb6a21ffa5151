import { type PointerEvent, useRef, useState } from "react";

export type Frame = { x: number; y: number; w: number; h: number };

type Props = {
  /** Where the picture lies in the drawing, in its pixels. */
  width: number;
  height: number;
  what: string;
  onFrame: (frame: Frame) => void;
  onLeave: () => void;
};

/** The smallest frame, as a share of the picture. */
const LEAST = 0.02;
/** Where a frame begins that is set by keys. */
const MIDDLE: Frame = { x: 0.35, y: 0.35, w: 0.3, h: 0.3 };
const STEP = 0.02;

/** A frame that she draws over a picture with a finger or the mouse, or sets by arrow keys: shift makes it larger or smaller, enter takes it. */
export function FrameOn({ width, height, what, onFrame, onLeave }: Props) {
  const from = useRef<{ x: number; y: number }>(undefined);
  const [frame, setFrame] = useState<Frame>(MIDDLE);
  const at = (e: PointerEvent<HTMLButtonElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const within = (v: number) => Math.min(1, Math.max(0, v));
    return { x: within((e.clientX - box.left) / box.width), y: within((e.clientY - box.top) / box.height) };
  };
  const keyed = (key: string, isSized: boolean) => {
    const [dx, dy] = MOVES[key] ?? [0, 0];
    setFrame((f) => {
      if (!isSized) {
        return { ...f, x: clamp(f.x + dx, 0, 1 - f.w), y: clamp(f.y + dy, 0, 1 - f.h) };
      }
      return { ...f, w: clamp(f.w + dx, LEAST, 1 - f.x), h: clamp(f.h + dy, LEAST, 1 - f.y) };
    });
  };
  return (
    <foreignObject width={width} height={height}>
      <button
        type="button"
        ref={(node) => node?.focus()}
        aria-label={`Frame ${what}: drag over the picture, or use the arrow keys, with shift for the size; enter takes it, escape leaves`}
        className="relative block h-full w-full cursor-crosshair touch-none bg-ink/25"
        onKeyDown={(e) => {
          if (e.key === "Enter") onFrame(frame);
          else if (e.key === "Escape") onLeave();
          else if (MOVES[e.key]) keyed(e.key, e.shiftKey);
          else return;
          e.preventDefault();
        }}
        onPointerDown={(e) => {
          from.current = at(e);
          e.currentTarget.setPointerCapture(e.pointerId);
        }}
        onPointerMove={(e) => {
          if (!from.current) return;
          const to = at(e);
          const [x, y] = [Math.min(from.current.x, to.x), Math.min(from.current.y, to.y)];
          setFrame({ x, y, w: Math.abs(to.x - from.current.x), h: Math.abs(to.y - from.current.y) });
        }}
        onPointerUp={() => {
          from.current = undefined;
          if (frame.w >= LEAST && frame.h >= LEAST) onFrame(frame);
        }}
      >
        <span
          data-frame
          className="absolute border-2 border-measure border-dashed bg-white/25"
          style={{
            left: `${frame.x * 100}%`,
            top: `${frame.y * 100}%`,
            width: `${frame.w * 100}%`,
            height: `${frame.h * 100}%`,
          }}
        />
      </button>
    </foreignObject>
  );
}

const MOVES: Record<string, readonly [number, number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};

const clamp = (v: number, least: number, most: number) => Math.min(most, Math.max(least, v));
