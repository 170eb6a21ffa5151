import type { FitDoc, PlaceDoc } from "@/api/client";
import { BlockBadge } from "@/shared/drawing/BlockNumbers";
import { extent, kindWord } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Length } from "@/shared/ui/Length";
import { moved, unitOf } from "./model";

type Props = {
  fit: FitDoc;
  /** Whom the page credits for its sketch. */
  credit?: string | null | undefined;
  places: readonly PlaceDoc[];
  selected: string | undefined;
  lit: string | undefined;
  onSelect: (id: string) => void;
  onLight: (id: string | undefined) => void;
};

/** The sketch, small and numbered, always in sight, and how far each block moved from where it was wanted. */
export function SketchCard({ fit, credit, places, selected, lit, onSelect, onLight }: Props) {
  const { sketch } = fit;
  const unit = sketch.unit === "mm" ? "mm" : "in";
  const width = 204;
  const scale = width / (sketch.canvas.page.w * sketch.canvas.pages);
  const height = sketch.canvas.page.h * scale;

  return (
    <section aria-labelledby="sketch-card" className="sheet">
      <h2 id="sketch-card">Sketch card</h2>
      <p className="mb-2 text-[13px] text-second">
        {sketch.name}, {sketch.canvas.pages === 2 ? "two pages of " : ""}
        <Length value={sketch.canvas.page.w} unit={unit} /> ×{" "}
        <Length value={sketch.canvas.page.h} unit={unit} withUnit />
      </p>
      {credit && <p className="mb-2 text-[13px]">{credit}</p>}
      <svg
        width={width + 2}
        height={height + 2}
        viewBox={`-1 -1 ${width + 2} ${height + 2}`}
        role="img"
        aria-label={`The sketch ${sketch.name}`}
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
      <h3 className="mt-3">Blocks</h3>
      <table className="w-full border-collapse text-[13px]">
        <thead>
          <tr className="text-second">
            <th scope="col" className="py-1 text-left font-normal">
              block
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              moved
            </th>
          </tr>
        </thead>
        <tbody>
          {sketch.blocks.map((b, n) => {
            const place = places.find((p) => p.id === b.id);
            const on = b.id === selected || b.id === lit;
            return (
              <tr
                key={b.id}
                data-block={b.id}
                className={`border-t border-hairline ${on ? "row-lit" : ""}`}
                onMouseEnter={() => onLight(b.id)}
                onMouseLeave={() => onLight(undefined)}
              >
                <td className="py-0.5">
                  <button
                    type="button"
                    aria-pressed={b.id === selected}
                    onClick={() => onSelect(b.id)}
                    className="flex w-full cursor-pointer items-center gap-2 text-left"
                  >
                    <BlockBadge number={String(n + 1)} on={b.id === selected} />
                    {kindWord(b.kind)}
                  </button>
                </td>
                <td className="text-right">{place ? <Moved place={place} fit={fit} /> : ""}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function Moved({ place, fit }: { place: PlaceDoc; fit: FitDoc }) {
  const by = moved(place);
  const unit = unitOf(fit);
  return by < (unit === "in" ? 1 / 64 : 0.4) ? (
    <span className="text-second">no</span>
  ) : (
    <Length value={by} unit={unit} />
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
