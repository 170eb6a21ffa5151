import type { FitDoc } from "@/api/client";
import { BlockBadge } from "@/shared/drawing/BlockNumbers";
import { extent, kindWord, type Numbered } from "@/shared/drawing/geometry";
import { Length } from "@/shared/ui/Length";
import { unitOf } from "./model";

type Props = {
  fit: FitDoc;
  blocks: readonly Numbered[];
  selected: string | undefined;
  lit: string | undefined;
  onSelect: (id: string) => void;
  onLight: (id: string | undefined) => void;
};

/** Every block of the layout: where it is on its own page, and how large. Hovering a row lights the block. */
export function MeasureSheet({ fit, blocks, selected, lit, onSelect, onLight }: Props) {
  const unit = unitOf(fit);
  const spread = fit.target.pages === 2;
  const rows = [...blocks].sort((a, b) => a.index - b.index);
  const head = "font-normal text-right";
  return (
    <section aria-labelledby="measures">
      <div className="mb-1 flex items-baseline justify-between">
        <h2 id="measures">Measure sheet</h2>
        <span className="text-[13px] text-second">{unit === "in" ? "in inches" : "in millimetres"}</span>
      </div>
      <table className="w-full border-collapse text-[13px] tabular-nums">
        <thead>
          <tr className="text-second">
            <th scope="col" className="text-left font-normal">
              block
            </th>
            {spread && (
              <th scope="col">
                <span className="sr-only">page</span>
              </th>
            )}
            <th scope="col" className={head}>
              left
            </th>
            <th scope="col" className={head}>
              top
            </th>
            <th scope="col" className={head}>
              size
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ block, number }) => {
            const id = block.from[0] ?? block.id;
            const box = extent(block);
            const left = block.page === 1 ? box.x - fit.target.page.w : box.x;
            return (
              <tr
                key={block.id}
                data-block={block.id}
                className={`border-t border-hairline ${
                  block.from.includes(selected ?? "") ? "bg-lit-measure" : id === lit ? "row-lit" : ""
                }`}
                onMouseEnter={() => onLight(id)}
                onMouseLeave={() => onLight(undefined)}
              >
                <th scope="row" className="py-px text-left font-normal">
                  <button
                    type="button"
                    aria-pressed={id === selected}
                    onClick={() => onSelect(id)}
                    className="flex min-h-[24px] cursor-pointer items-center pointer-coarse:min-h-[44px]"
                    title={kindWord(block.kind)}
                  >
                    <BlockBadge number={number} on={id === selected} />
                    <span className="sr-only">{kindWord(block.kind)}</span>
                  </button>
                </th>
                {spread && (
                  <td>
                    <OnPage
                      both={box.x < fit.target.page.w && box.x + box.w > fit.target.page.w}
                      right={block.page === 1}
                    />
                  </td>
                )}
                <td className="text-right">
                  <Length value={left} unit={unit} />
                </td>
                <td className="text-right">
                  <Length value={box.y} unit={unit} />
                </td>
                <td className="whitespace-nowrap pl-1 text-right">
                  <Length value={box.w} unit={unit} /> × <Length value={box.h} unit={unit} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** A little spread with the page inked that a block is on. */
function OnPage({ both, right }: { both: boolean; right: boolean }) {
  const says = both ? "both pages" : right ? "right page" : "left page";
  return (
    <svg width="17" height="9" viewBox="0 0 17 9" role="img" aria-label={says}>
      <title>{says}</title>
      <rect x="0.5" y="0.5" width="16" height="8" fill="none" stroke="var(--color-second)" />
      {(both || !right) && <rect x="1" y="1" width="7.5" height="7" fill="var(--color-second)" />}
      {(both || right) && <rect x="8.5" y="1" width="7.5" height="7" fill="var(--color-second)" />}
    </svg>
  );
}
