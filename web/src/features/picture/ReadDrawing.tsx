import type { SketchDoc } from "@/api/client";
import { PageSheet } from "@/shared/drawing/PageSheet";

const WIDE = 350;
const TALL = 290;

/** What was read, drawn to scale; the block in hand is ringed. */
export function ReadDrawing({ sketch, at }: { sketch: SketchDoc; at: string | undefined }) {
  const { page, pages } = sketch.canvas;
  const scale = Math.min((WIDE - 6) / (page.w * pages), (TALL - 6) / page.h);
  const [w, h] = [page.w * pages * scale, page.h * scale];
  const block = sketch.blocks.find((b) => b.id === at);
  return (
    <svg
      width={w + 6}
      height={h + 6}
      viewBox={`-3 -3 ${w + 6} ${h + 6}`}
      role="img"
      aria-label={`What was read: ${sketch.blocks.length} blocks`}
    >
      <PageSheet canvas={sketch.canvas} blocks={sketch.blocks} scale={scale} />
      {block && (
        <rect
          x={block.box.x * scale - 2}
          y={block.box.y * scale - 2}
          width={block.box.w * scale + 4}
          height={block.box.h * scale + 4}
          transform={`rotate(${block.turn ?? 0} ${(block.box.x + block.box.w / 2) * scale} ${(block.box.y + block.box.h / 2) * scale})`}
          fill="none"
          stroke="#c2185b"
          strokeWidth={3}
        />
      )}
    </svg>
  );
}
