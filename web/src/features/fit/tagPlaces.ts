import type { LayoutDoc } from "@/api/client";
import { extent, type Numbered } from "@/shared/drawing/geometry";

/** Two numbers closer than this, in pixels, would run into each other. */
const APART = 20;

type Placed = Numbered & { x: number; y: number };

/** Where each number goes: the block's middle, or the free place in it nearest to that, so that no two collide. */
export function tagPlaces(blocks: readonly Numbered[], scale: number, canvas: LayoutDoc["canvas"]): Placed[] {
  const placed: Placed[] = [];
  const limit = { w: canvas.page.w * canvas.pages * scale, h: canvas.page.h * scale };
  // Small blocks have the least choice.
  const order = blocks
    .filter((b) => b.number !== "")
    .map((b, n) => ({ b, n, area: extent(b.block).w * extent(b.block).h }))
    .sort((a, b) => a.area - b.area || a.n - b.n);
  for (const { b } of order) {
    const box = extent(b.block);
    const cx = (box.x + box.w / 2) * scale;
    const cy = (box.y + box.h / 2) * scale;
    const halfW = Math.max(0, (box.w * scale) / 2 - 11);
    const halfH = Math.max(0, (box.h * scale) / 2 - 11);
    let best = { x: cx, y: cy, cost: Number.POSITIVE_INFINITY };
    for (let i = -4; i <= 4; i++) {
      for (let j = -4; j <= 4; j++) {
        const x = Math.min(Math.max(cx + (i / 4) * halfW, 10), limit.w - 10);
        const y = Math.min(Math.max(cy + (j / 4) * halfH, 10), limit.h - 10);
        const near = placed.reduce((sum, p) => sum + Math.max(0, APART - Math.hypot(p.x - x, p.y - y)), 0);
        const onFold = canvas.pages === 2 ? Math.max(0, 11 - Math.abs(x - limit.w / 2)) : 0;
        const cost = near * 100 + onFold * 4 + Math.hypot(x - cx, y - cy);
        if (cost < best.cost - 1e-9) best = { x, y, cost };
      }
    }
    placed.push({ ...b, x: best.x, y: best.y });
  }
  return placed;
}
