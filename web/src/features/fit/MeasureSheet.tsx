import type { FitDoc } from "@/api/client";
import { BlockBadge } from "@/shared/drawing/BlockNumbers";
import { extent, kindWord, type Numbered } from "@/shared/drawing/geometry";
import { Length } from "@/shared/ui/Length";
import { unitOf } from "./model";

type Props = {
  take: React.ReactNode;
  fit: FitDoc;
  blocks: readonly Numbered[];
  selected: string | undefined;
  lit: string | undefined;
  onSelect: (id: string) => void;
  onLight: (id: string | undefined) => void;
};

/** Every block of the layout: where it is on its own page, and how large. Hovering a row lights the block. */
export function MeasureSheet({ take, fit, blocks, selected, lit, onSelect, onLight }: Props) {
  const unit = unitOf(fit);
  const spread = fit.target.pages === 2;
  const rows = [...blocks].sort((a, b) => a.index - b.index);
  return (
    <section aria-labelledby="measures">
      <div className="mb-1 flex items-center justify-between">
        <h2 id="measures">Measure sheet</h2>
        {take}
      </div>
      <table className="w-full border-collapse text-[13px]">
        <thead>
          <tr className="text-second">
            <th scope="col" className="text-left font-normal">
              block
            </th>
            {spread && (
              <th scope="col" className="text-left font-normal">
                page
              </th>
            )}
            <th scope="col" className="text-right font-normal">
              left
            </th>
            <th scope="col" className="text-right font-normal">
              top
            </th>
            <th scope="col" className="text-right font-normal">
              width
            </th>
            <th scope="col" className="text-right font-normal">
              height
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
                <th scope="row" className="py-0.5 text-left font-normal">
                  <button
                    type="button"
                    aria-pressed={id === selected}
                    onClick={() => onSelect(id)}
                    className="flex cursor-pointer items-center gap-1.5"
                  >
                    <BlockBadge number={number} on={id === selected} />
                    {kindWord(block.kind)}
                  </button>
                </th>
                {spread && <td className="text-second">{block.page === 1 ? "right" : "left"}</td>}
                <td className="text-right">
                  <Length value={left} unit={unit} />
                </td>
                <td className="text-right">
                  <Length value={box.y} unit={unit} />
                </td>
                <td className="text-right">
                  <Length value={box.w} unit={unit} />
                </td>
                <td className="text-right">
                  <Length value={box.h} unit={unit} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
