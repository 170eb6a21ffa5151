import { useState } from "react";
import type { ClusterPieceDoc, LaidClusterDoc, LaidPieceDoc } from "@/api/client";
import type { StashById } from "@/features/stash/looks";
import type { Unit } from "@/shared/lengths/length";
import { Length } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { PieceInList, pieceLook } from "./Pieces";

const LIFTS: readonly (readonly [string, string])[] = [
  ["flat", "flat"],
  ["card", "card"],
  ["thin-foam", "thin foam"],
  ["thick-foam", "thick foam"],
];

type Props = {
  cluster: LaidClusterDoc;
  number: string;
  chosen: readonly ClusterPieceDoc[];
  stash: StashById;
  unit: Unit;
  mayChange: boolean;
  lit: number | undefined;
  onPick: (piece: number) => void;
  onChange: (piece: number, change: Partial<ClusterPieceDoc>, reason: string) => void;
  onMove: (piece: number, by: -1 | 1) => void;
  onTakeOut: (piece: number) => void;
};

/** A cluster as it is stacked, top first: size, lift, and what holds each piece. */
export function Stack(props: Props) {
  const { cluster, number, lit } = props;
  const top = [...cluster.pieces].reverse();
  const picked = cluster.pieces.find((p) => p.piece === lit);
  return (
    <section aria-labelledby="stack" className="grid gap-2">
      <h2 id="stack" className="text-[17px]">
        Cluster {number}, as it is stacked
      </h2>
      {top.length === 0 ? (
        <p className="text-second">Nothing lies in it yet. Choose pieces at the left, or share some out.</p>
      ) : (
        <table className="w-full text-[13px]">
          <thead className="text-second">
            <tr>
              <th className="text-left font-normal" colSpan={3}>
                top first
              </th>
              <th className="text-right font-normal">size</th>
              <th className="text-right font-normal">lift</th>
            </tr>
          </thead>
          <tbody>
            {top.map((piece) => (
              <Row key={piece.piece} piece={piece} {...props} />
            ))}
          </tbody>
        </table>
      )}
      {picked && props.mayChange && <InHand piece={picked} {...props} />}
    </section>
  );
}

function Row({ piece, stash, unit, lit, onPick }: Props & { piece: LaidPieceDoc }) {
  const look = pieceLook(stash, piece.item);
  return (
    <tr className={`border-hairline border-t align-top ${lit === piece.piece ? "bg-lit" : ""}`}>
      <td className="py-1 pr-1 tabular-nums">{piece.piece + 1}</td>
      <td className="py-1 pr-2">
        <PieceInList look={look} w={piece.w} h={piece.h} unit={unit} perInch={22} most={30} />
      </td>
      <td className="py-1">
        <button
          type="button"
          aria-pressed={lit === piece.piece}
          className="text-left font-semibold underline decoration-hairline underline-offset-2"
          onClick={() => onPick(piece.piece)}
        >
          {look.name}
        </button>
        <span className="block text-second">{piece.fixed}</span>
        {piece.mind && <span className="block text-measure">{piece.mind}</span>}
      </td>
      <td className="whitespace-nowrap py-1 text-right tabular-nums">
        <Length value={piece.w} unit={unit} /> × <Length value={piece.h} unit={unit} />
      </td>
      <td className="py-1 text-right">{LIFTS.find(([name]) => name === piece.lift)?.[1]}</td>
    </tr>
  );
}

/** The piece in hand: its place, turn and lift by numbers, and its place in the stack. */
function InHand({ piece, cluster, chosen, stash, unit, onChange, onMove, onTakeOut }: Props & { piece: LaidPieceDoc }) {
  const { name } = pieceLook(stash, piece.item);
  const n = piece.piece;
  const isHeld = chosen[n]?.at !== undefined && chosen[n]?.at !== null;
  const small = "button px-2 py-0.5";
  return (
    <div className="grid gap-2 border-hairline border-t pt-2 text-[13px]">
      <h3 className="text-[15px]">{name}, in hand</h3>
      <div className="flex flex-wrap gap-x-4 gap-y-1.5">
        <LengthField
          label="middle from left"
          value={piece.at.x}
          unit={unit}
          onCommit={(x) => onChange(n, { at: { x, y: piece.at.y } }, `${name} moved`)}
        />
        <LengthField
          label="from top"
          value={piece.at.y}
          unit={unit}
          onCommit={(y) => onChange(n, { at: { x: piece.at.x, y } }, `${name} moved`)}
        />
        <TurnField turn={piece.turn} onCommit={(turn) => onChange(n, { turn }, `${name} turned`)} />
        <label className="inline-flex items-center gap-1.5 text-second">
          lift
          <select
            className="field px-1.5 py-0.5"
            value={piece.lift}
            onChange={(e) => onChange(n, { lift: e.target.value }, `${name} lifted`)}
          >
            {LIFTS.map(([value, said]) => (
              <option key={value} value={value}>
                {said}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="flex flex-wrap gap-1.5">
        <button type="button" className={small} disabled={n === cluster.pieces.length - 1} onClick={() => onMove(n, 1)}>
          Higher
        </button>
        <button type="button" className={small} disabled={n === 0} onClick={() => onMove(n, -1)}>
          Lower
        </button>
        {isHeld ? (
          <button
            type="button"
            className={small}
            onClick={() => onChange(n, { at: null, turn: null }, `${name} let go`)}
          >
            Lay it for me
          </button>
        ) : (
          <button
            type="button"
            className={small}
            onClick={() => onChange(n, { at: piece.at, turn: piece.turn }, `${name} held`)}
          >
            Hold it there
          </button>
        )}
        <button type="button" className={small} onClick={() => onTakeOut(n)}>
          Take it out
        </button>
      </div>
    </div>
  );
}

function TurnField({ turn, onCommit }: { turn: number; onCommit: (turn: number) => void }) {
  const [text, setText] = useState<string>();
  const commit = () => {
    const typed = Number(text);
    if (text !== undefined && Number.isFinite(typed) && Math.abs(typed) <= 360 && typed !== turn) onCommit(typed);
    setText(undefined);
  };
  return (
    <label className="inline-flex items-center gap-1.5 text-second">
      turned
      <input
        className="field w-14 px-1.5 py-0.5 text-right tabular-nums"
        inputMode="numeric"
        value={text ?? String(turn)}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === "Enter" && commit()}
      />
      °
    </label>
  );
}
