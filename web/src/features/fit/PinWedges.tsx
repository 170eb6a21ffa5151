import type { FitDoc } from "@/api/client";
import { extent, type Numbered } from "@/shared/drawing/geometry";
import { pinKey } from "./HeldBetween";

const GREEN = "#0b7d69";
const LONG = 11;
const HALF = 6;

/** A wedge on every pinned edge; a pinned size has one on either side. */
export function PinWedges({ fit, blocks, scale }: { fit: FitDoc; blocks: readonly Numbered[]; scale: number }) {
  return (
    <g aria-hidden style={{ pointerEvents: "none" }}>
      {(fit.pins ?? []).map((pin) => {
        const own = blocks.filter((b) => b.block.from.includes(pin.block)).map((b) => extent(b.block));
        if (own.length === 0) return null;
        const x0 = Math.min(...own.map((b) => b.x)) * scale;
        const x1 = Math.max(...own.map((b) => b.x + b.w)) * scale;
        const y0 = Math.min(...own.map((b) => b.y)) * scale;
        const y1 = Math.max(...own.map((b) => b.y + b.h)) * scale;
        const cx = (x0 + x1) / 2;
        const cy = (y0 + y1) / 2;
        const wedges = {
          left: [wedge(x0, cy, -1, 0)],
          right: [wedge(x1, cy, 1, 0)],
          top: [wedge(cx, y0, 0, -1)],
          bottom: [wedge(cx, y1, 0, 1)],
          width: [wedge(x0, cy, -1, 0), wedge(x1, cy, 1, 0)],
          height: [wedge(cx, y0, 0, -1), wedge(cx, y1, 0, 1)],
          "centre-x": [wedge(cx, y0, 0, -1)],
          "centre-y": [wedge(x0, cy, -1, 0)],
        }[pin.edge];
        return <path key={pinKey(pin)} d={(wedges ?? []).join("")} fill={GREEN} stroke="#ffffff" />;
      })}
    </g>
  );
}

/** A wedge whose tip is on an edge, standing off it in a direction. */
function wedge(x: number, y: number, dx: number, dy: number): string {
  const bx = x + dx * LONG;
  const by = y + dy * LONG;
  return `M${x} ${y}L${bx + dy * HALF} ${by + dx * HALF}L${bx - dy * HALF} ${by - dx * HALF}Z`;
}
