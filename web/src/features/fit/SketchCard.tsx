import type { FitDoc } from "@/api/client";
import { extent } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Length } from "@/shared/ui/Length";

type Props = {
  fit: FitDoc;
  /** Whom the page credits for its sketch. */
  credit?: string | null | undefined;
  selected: string | undefined;
  lit: string | undefined;
  /** The measure sheet, which lies under the sketch. */
  children: React.ReactNode;
};

/** The card is no higher than this, in pixels, so that the measures have room. */
const TALLEST = 160;

/** The sketch, small and numbered, with the measures of the page under it: always in sight. */
export function SketchCard({ fit, credit, selected, lit, children }: Props) {
  const { sketch } = fit;
  const unit = sketch.unit === "mm" ? "mm" : "in";
  const across = sketch.canvas.page.w * sketch.canvas.pages;
  const scale = Math.min(204 / across, TALLEST / sketch.canvas.page.h);
  const width = across * scale;
  const height = sketch.canvas.page.h * scale;

  return (
    <section aria-labelledby="sketch-card" className="sheet">
      <h2 id="sketch-card">Sketch card</h2>
      <p className="text-[13px] text-second">
        {sketch.name}, {sketch.canvas.pages === 2 ? "two pages of " : ""}
        <Length value={sketch.canvas.page.w} unit={unit} /> ×{" "}
        <Length value={sketch.canvas.page.h} unit={unit} withUnit />
      </p>
      {credit && <p className="text-[13px]">{credit}</p>}
      <svg
        width={width + 2}
        height={height + 2}
        viewBox={`-1 -1 ${width + 2} ${height + 2}`}
        role="img"
        aria-label={`The sketch ${sketch.name}`}
        className="mx-auto block"
      >
        <PageSheet canvas={sketch.canvas} blocks={sketch.blocks} scale={scale} />
        {sketch.blocks.map((b, n) => {
          const box = extent(b);
          return (
            <NumberTag
              key={b.id}
              x={(box.x + box.w / 2) * scale}
              y={(box.y + box.h / 2) * scale + offsetOf(sketch.blocks, n)}
              number={String(n + 1)}
              lit={b.id === selected || b.id === lit}
              small
            />
          );
        })}
      </svg>
      <div className="mt-3">{children}</div>
    </section>
  );
}

/** Concentric blocks (mats round a photo) would hide each other's numbers: each further one steps down. */
function offsetOf(blocks: FitDoc["sketch"]["blocks"], n: number): number {
  const centre = (b: (typeof blocks)[number]) => [b.box.x + b.box.w / 2, b.box.y + b.box.h / 2] as const;
  const own = blocks[n];
  if (!own) return 0;
  const [x, y] = centre(own);
  const before = blocks.slice(0, n).filter((b) => {
    const [bx, by] = centre(b);
    return Math.abs(bx - x) < own.box.w / 16 + 0.1 && Math.abs(by - y) < own.box.h / 16 + 0.1;
  });
  return before.length * 14;
}
