import type { FitDoc, PlaceDoc } from "@/api/client";
import { type KeepWay, keepOf, withKeep } from "@/features/sketch/holds";
import { BlockBadge } from "@/shared/drawing/BlockNumbers";
import { kindWord } from "@/shared/drawing/geometry";
import type { Unit } from "@/shared/lengths/length";
import { Length, Sentence } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { ChangeBlock } from "./ChangeBlock";
import { HeldBetween } from "./HeldBetween";
import { type LedgerRow, ledgerRows, pinOf, unitOf, withoutPin, withPin } from "./model";

type Props = {
  fit: FitDoc;
  place: PlaceDoc | undefined;
  places: readonly PlaceDoc[];
  selected: string | undefined;
  change: (fit: FitDoc, reason: string) => void;
};

/** The selected block: in the sketch, as wanted, here; and what of it is held. */
export function BlockLedger({ fit, place, places, selected, change }: Props) {
  const index = fit.sketch.blocks.findIndex((b) => b.id === selected);
  const block = fit.sketch.blocks[index];
  if (block && !place) {
    // What she left out has no numbers, but can be asked back in.
    return (
      <section aria-labelledby="block">
        <h2 id="block">
          <BlockBadge number={String(index + 1)} on /> The {kindWord(block.kind)}
        </h2>
        <p className="text-second">It has no place on this page.</p>
        <ChangeBlock fit={fit} block={block} change={change} />
      </section>
    );
  }
  if (!block || !place) {
    return (
      <section aria-labelledby="block">
        <h2 id="block">A block's numbers</h2>
        <p className="text-second">Type a block's number, or point at it, to see where it is and to pin it.</p>
      </section>
    );
  }
  const unit = unitOf(fit);
  return (
    <section aria-labelledby="block">
      <h2 id="block" className="mb-1">
        <BlockBadge number={String(index + 1)} on /> The {kindWord(block.kind)}
      </h2>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-[13px] text-second">
            <th scope="col" className="text-left font-normal">
              <span className="sr-only">measure</span>
            </th>
            <th scope="col" className="text-right font-normal">
              sketch
            </th>
            <th scope="col" className="text-right font-normal">
              wanted
            </th>
            <th scope="col" className="text-right font-normal">
              here
            </th>
            <th scope="col" className="w-[64px] text-right font-normal">
              <span className="sr-only">pin</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {ledgerRows(fit, place).map((row) => (
            <tr key={row.label} className="border-t border-hairline">
              <th scope="row" className="py-1 text-left font-normal">
                {row.label}
              </th>
              <td className="text-right">{row.edge ? <Length value={row.sketch} unit={unit} /> : "–"}</td>
              <td className="text-right">
                <OffFold value={row.wanted} unit={unit} />
              </td>
              <td className="text-right font-bold">
                {row.edge ? (
                  <Here fit={fit} block={block.id} row={row} change={change} />
                ) : (
                  <OffFold value={row.here} unit={unit} />
                )}
              </td>
              <td className="text-right">
                {row.edge && <PinButton fit={fit} block={block.id} row={row} change={change} />}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {place.why.length > 0 && (
        <ul aria-label="Why it is here" className="mt-1.5 grid gap-0.5 text-[13px]">
          {place.why.map((why) => (
            <li key={why}>
              <Sentence text={why} />
            </li>
          ))}
        </ul>
      )}
      <label className="mt-2 flex items-center gap-2">
        <span className="text-second">Held to</span>
        <select
          className="field min-w-0 flex-1 py-1"
          value={keepOf(fit, block.id) ?? ""}
          onChange={(e) => {
            const way = (e.target.value || undefined) as KeepWay | undefined;
            change(
              withKeep(fit, block.id, way),
              `${block.id} ${KEEPS.find((k) => k.value === e.target.value)?.reason}`,
            );
          }}
        >
          {KEEPS.map((k) => (
            <option key={k.value} value={k.value}>
              {k.label}
            </option>
          ))}
        </select>
      </label>
      <HeldBetween key={block.id} fit={fit} block={block.id} places={places} change={change} />
      <ChangeBlock fit={fit} block={block} change={change} />
    </section>
  );
}

const KEEPS: readonly { value: string; label: string; reason: string }[] = [
  { value: "", label: "what the fit finds best", reason: "weighed with the rest" },
  { value: "place", label: "its place", reason: "held to its place" },
  { value: "size", label: "its size", reason: "held to its size" },
  { value: "both", label: "its place and size", reason: "held to place and size" },
  { value: "free", label: "nothing: it is free", reason: "set free" },
];

/** A measure, or that it stands on both pages. */
function OffFold({ value, unit }: { value: number | undefined; unit: Unit }) {
  return value === undefined ? <span className="text-second">across</span> : <Length value={value} unit={unit} />;
}

type RowProps = { fit: FitDoc; block: string; row: Extract<LedgerRow, { edge: string }>; change: Props["change"] };

/** Where an edge is; a pinned one can be typed elsewhere. */
function Here({ fit, block, row, change }: RowProps) {
  const unit = unitOf(fit);
  const pin = pinOf(fit, block, row.edge);
  if (!pin) return <Length value={row.here} unit={unit} />;
  const edge = row.edge;
  return (
    <LengthField
      label={`${row.label} pinned at`}
      hideLabel
      value={pin.at}
      unit={unit}
      most={80}
      width="4.4rem"
      onCommit={(at) => change(withPin(fit, block, edge, at), `${row.label} of ${block} pinned`)}
    />
  );
}

function PinButton({ fit, block, row, change }: RowProps) {
  const edge = row.edge;
  const pinned = pinOf(fit, block, edge) !== undefined;
  return (
    <button
      type="button"
      aria-pressed={pinned}
      aria-label={pinned ? `Let go of the ${row.label}` : `Pin the ${row.label}`}
      onClick={() =>
        pinned
          ? change(withoutPin(fit, block, edge), `${row.label} of ${block} let go`)
          : change(withPin(fit, block, edge, row.here), `${row.label} of ${block} pinned`)
      }
      className={`inline-flex cursor-pointer items-center gap-1 rounded-[3px] border border-pin px-1.5 text-[13px] font-medium ${
        pinned ? "bg-pin text-sheet" : "bg-sheet text-pin"
      }`}
    >
      <svg width="9" height="9" viewBox="0 0 9 9" aria-hidden="true">
        <path d="M4.5 9L0 0H9Z" fill="currentColor" />
      </svg>
      {pinned ? "held" : "pin"}
    </button>
  );
}
