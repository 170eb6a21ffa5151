import type { ListedCutDoc } from "@/api/client";
import { type StashById, sideName } from "@/features/stash/looks";
import type { Unit } from "@/shared/lengths/length";
import { Length } from "@/shared/ui/Length";

type Props = {
  list: readonly ListedCutDoc[];
  labelOf: (piece: string) => string;
  stash: StashById;
  unit: Unit;
  onShow: (sheet: number) => void;
  isHeld: (piece: string) => boolean;
};

const STATES: Record<string, string> = { "to-cut": "to cut", cut: "cut", whole: "whole sheet", short: "short" };

/** Every piece with what is cut, from which paper, and how far it is. */
export function CutList({ list, labelOf, stash, unit, onShow, isHeld }: Props) {
  if (list.length === 0) return null;
  return (
    <table className="mt-2 w-full text-[13px]">
      <caption className="text-left font-semibold">Cut list</caption>
      <thead className="sr-only">
        <tr>
          <th scope="col">Piece</th>
          <th scope="col">Cut</th>
          <th scope="col">How far</th>
        </tr>
      </thead>
      <tbody>
        {list.map((piece) => {
          const found = stash.get(piece.paper.item);
          const paper = found ? sideName(found.item, piece.paper.side) : "a paper that is gone";
          return (
            <tr key={piece.name} className="border-hairline border-t align-top">
              <th scope="row" className="py-0.5 pr-1 text-left font-normal">
                <button
                  type="button"
                  className="text-left underline decoration-hairline underline-offset-2 disabled:no-underline"
                  disabled={piece.sheet === null}
                  onClick={() => onShow(piece.sheet ?? 0)}
                >
                  <strong>{labelOf(piece.name)}</strong>
                </button>
                <span className="block text-second">{paper}</span>
                {piece.tool !== "trimmer" && <span className="block text-second">{piece.tool}</span>}
                {piece.tight && (
                  <span className="block text-measure">
                    little goes under: cut it large, lay it down, mark it, trim again
                  </span>
                )}
                {isHeld(piece.name) && <span className="block text-second">held in its place</span>}
              </th>
              <td className="num whitespace-nowrap py-0.5 text-right">
                <Length value={piece.cut.w} unit={unit} /> × <Length value={piece.cut.h} unit={unit} />
              </td>
              <td className={`py-0.5 pl-2 text-right ${piece.state === "short" ? "text-measure" : "text-second"}`}>
                {STATES[piece.state] ?? piece.state}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
