import type { CutSheetDoc, ListedCutDoc, PlanDoc } from "@/api/client";
import { lockOf, thingOf, withLock } from "./model";

type Props = {
  /** The pieces of the sheet in hand, and those that are short. */
  list: readonly ListedCutDoc[];
  plan: PlanDoc;
  sheets: readonly CutSheetDoc[];
  nameOf: (sheet: CutSheetDoc) => string;
  labelOf: (piece: string) => string;
  change: (next: PlanDoc, reason: string) => void;
};

/** What is held of pieces' places in the plan: which sheet each comes from, and that it is not turned. */
export function PiecesHeld({ list, plan, sheets, nameOf, labelOf, change }: Props) {
  const open = list.filter((p) => p.state === "to-cut" || p.state === "short");
  if (open.length === 0) return null;
  return (
    <details className="text-[13px]">
      <summary>Hold pieces in their places</summary>
      <ul className="mt-1 grid gap-1">
        {open.map((piece) => (
          <OnePiece
            key={piece.name}
            piece={piece}
            plan={plan}
            sheets={sheets}
            nameOf={nameOf}
            label={labelOf(piece.name)}
            change={change}
          />
        ))}
      </ul>
    </details>
  );
}

type OneProps = Pick<Props, "plan" | "sheets" | "nameOf" | "change"> & { piece: ListedCutDoc; label: string };

function OnePiece({ piece, plan, sheets, nameOf, label, change }: OneProps) {
  const lock = lockOf(plan, piece.name);
  const own = sheets.filter((s) => thingOf(s) === piece.paper.item);
  const stock = new Map(own.map((s) => [s.item, s.item === thingOf(s) ? `a sheet of ${nameOf(s)}` : nameOf(s)]));
  return (
    <li className="grid grid-cols-[3rem_minmax(0,1fr)_auto] items-center gap-2 border-hairline border-t py-1">
      <strong>{label}</strong>
      <select
        aria-label={`Which sheet ${label} comes from`}
        className="field min-w-0 py-0.5"
        value={lock.from ?? ""}
        onChange={(e) =>
          change(
            withLock(plan, piece.name, { ...lock, from: e.target.value || undefined }),
            e.target.value ? `${label} from ${stock.get(e.target.value)}` : `${label} from any sheet`,
          )
        }
      >
        <option value="">any sheet that suits</option>
        {[...stock].map(([item, name]) => (
          <option key={item} value={item}>
            {name}
          </option>
        ))}
        {lock.from && !stock.has(lock.from) && <option value={lock.from}>a sheet that is gone</option>}
      </select>
      <label className="flex items-center gap-1.5 whitespace-nowrap">
        <input
          type="checkbox"
          checked={lock.upright ?? false}
          onChange={(e) =>
            change(
              withLock(plan, piece.name, { ...lock, upright: e.target.checked || undefined }),
              e.target.checked ? `${label} not turned` : `${label} may be turned`,
            )
          }
        />
        not turned<span className="sr-only">: {label}</span>
      </label>
    </li>
  );
}
