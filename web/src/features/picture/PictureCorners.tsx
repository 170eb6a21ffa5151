import { useDrag } from "@use-gesture/react";
import { useRef, useState } from "react";
import { CORNER_NAMES, type Corners, movedCorner } from "./corners";

type Props = {
  url: string;
  size: { w: number; h: number };
  corners: Corners;
  onChange: (corners: Corners) => void;
};

const LENS = 132;
const LARGER = 4;
const STEPS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The picture with the page's four corners, dragged by mouse or moved with the arrow keys; a lens shows the one in hand. */
export function PictureCorners({ url, size, corners, onChange }: Props) {
  const frame = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<number>();
  const handle = size.w / 45;
  const place = ([x, y]: readonly [number, number]): readonly [number, number] => {
    const box = frame.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    return [((x - box.left) / box.width) * size.w, ((y - box.top) / box.height) * size.h];
  };
  const drag = useDrag(
    ({ args: [n], xy }) => {
      setHeld(n as number);
      onChange(movedCorner(corners, n as number, place(xy), size));
    },
    { pointer: { keys: false } },
  );
  const inHand = held === undefined ? undefined : corners[held];
  return (
    <div className="relative">
      <svg ref={frame} viewBox={`0 0 ${size.w} ${size.h}`} className="block max-h-[64vh] max-w-full touch-none">
        <title>The picture, with the corners of its page</title>
        <image href={url} width={size.w} height={size.h} />
        <polygon
          points={corners.map((c) => c.join(",")).join(" ")}
          fill="none"
          stroke="var(--color-pin)"
          strokeWidth={size.w / 260}
        />
        {corners.map((c, n) => (
          <circle
            key={CORNER_NAMES[n]}
            cx={c[0]}
            cy={c[1]}
            r={handle}
            fill="#ffffff99"
            stroke="var(--color-pin)"
            strokeWidth={size.w / 260}
            tabIndex={0}
            role="slider"
            aria-label={`${CORNER_NAMES[n]} corner of the page`}
            aria-valuenow={Math.round(c[0])}
            aria-valuetext={`${Math.round(c[0])} across, ${Math.round(c[1])} down`}
            className="cursor-move"
            onFocus={() => setHeld(n)}
            onBlur={() => setHeld(undefined)}
            {...drag(n)}
            onKeyDown={(e) => {
              const step = STEPS[e.key];
              if (!step) return;
              e.preventDefault();
              const by = e.shiftKey ? 10 : 1;
              onChange(movedCorner(corners, n, [c[0] + step[0] * by, c[1] + step[1] * by], size));
            }}
          />
        ))}
      </svg>
      {inHand && (
        <svg
          aria-hidden="true"
          width={LENS}
          height={LENS}
          viewBox={`${inHand[0] - size.w / LARGER / 8} ${inHand[1] - size.w / LARGER / 8} ${size.w / LARGER / 4} ${size.w / LARGER / 4}`}
          className={`absolute top-2 border-2 border-ink bg-white ${inHand[0] > size.w / 2 ? "left-2" : "right-2"}`}
        >
          <image href={url} width={size.w} height={size.h} />
          <path
            d={`M${inHand[0] - size.w} ${inHand[1]}h${2 * size.w}M${inHand[0]} ${inHand[1] - size.h}v${2 * size.h}`}
            stroke="var(--color-pin)"
            strokeWidth={size.w / 1400}
          />
        </svg>
      )}
    </div>
  );
}
