import { useState } from "react";
import type { LaidClusterDoc, LaidPieceDoc } from "@/api/client";
import { inUnit, type StashById } from "@/features/stash/looks";
import { type PieceLook, PieceShape } from "@/shared/drawing/PieceShape";

/** What a thing of the stash looks like as a piece. */
export function pieceLook(stash: StashById, item: string): PieceLook {
  const found = stash.get(item)?.item;
  return {
    form: found?.form ?? "plain",
    colours: (found?.a.colours ?? []).map((c) => c.colour),
    name: found?.name ?? "a piece that is gone",
    seeThrough: found?.material === "acetate" || found?.material === "vellum",
  };
}

type Props = {
  clusters: readonly LaidClusterDoc[];
  stash: StashById;
  scale: number;
  lit?: { block: string; piece: number } | undefined;
  onPick?: ((block: string, piece: number) => void) | undefined;
  /** A piece was laid somewhere else, in the page's unit. */
  onMoved?: ((cluster: LaidClusterDoc, piece: number, to: { x: number; y: number }) => void) | undefined;
};

/** The pieces of a page's clusters in their places, bottom to top; each follows the hand. */
export function Pieces({ clusters, stash, scale, lit, onPick, onMoved }: Props) {
  return (
    <g>
      {clusters.map((cluster) =>
        cluster.pieces.map((piece) => (
          <OnPage
            key={`${cluster.block} ${piece.piece}`}
            piece={piece}
            look={pieceLook(stash, piece.item)}
            scale={scale}
            isLit={lit?.block === cluster.block && lit.piece === piece.piece}
            onPick={onPick && (() => onPick(cluster.block, piece.piece))}
            onMoved={onMoved && ((to) => onMoved(cluster, piece.piece, to))}
          />
        )),
      )}
    </g>
  );
}

type OnPageProps = {
  piece: LaidPieceDoc;
  look: PieceLook;
  scale: number;
  isLit: boolean;
  onPick: (() => void) | undefined;
  onMoved: ((to: { x: number; y: number }) => void) | undefined;
};

/** So far a hand trembles, in pixels, without moving anything. */
const TREMBLE = 3;

function OnPage({ piece, look, scale, isLit, onPick, onMoved }: OnPageProps) {
  const [drag, setDrag] = useState<{ from: [number, number]; by: [number, number] }>();
  const [dx, dy] = drag?.by ?? [0, 0];
  const [x, y] = [piece.at.x * scale + dx, piece.at.y * scale + dy];
  return (
    <g
      data-piece={look.name}
      transform={`translate(${x} ${y}) rotate(${piece.turn})`}
      className={onMoved ? "cursor-grab" : undefined}
      style={{ touchAction: "none", filter: "drop-shadow(0 1px 1px rgb(0 0 0 / 0.3))" }}
      onPointerDown={(e) => {
        onPick?.();
        if (!onMoved) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        setDrag({ from: [e.clientX, e.clientY], by: [0, 0] });
      }}
      onPointerMove={(e) => drag && setDrag({ ...drag, by: [e.clientX - drag.from[0], e.clientY - drag.from[1]] })}
      onPointerUp={() => {
        if (drag && Math.hypot(dx, dy) > TREMBLE) onMoved?.({ x: x / scale, y: y / scale });
        setDrag(undefined);
      }}
      onPointerCancel={() => setDrag(undefined)}
    >
      <PieceShape look={look} w={piece.w * scale} h={piece.h * scale} />
      {isLit && (
        <rect
          x={(-piece.w * scale) / 2 - 2}
          y={(-piece.h * scale) / 2 - 2}
          width={piece.w * scale + 4}
          height={piece.h * scale + 4}
          fill="none"
          stroke="#0b7d69"
          strokeWidth={2}
        />
      )}
    </g>
  );
}

/** Something small at the page's scale, for lists. */
export function PieceInList({
  look,
  w,
  h,
  unit,
  perInch,
  most = 40,
}: {
  look: PieceLook;
  w: number;
  h: number;
  unit: string;
  perInch: number;
  most?: number;
}) {
  const [across, down] = [inUnit(w, unit, "in") * perInch, inUnit(h, unit, "in") * perInch];
  const by = Math.min(1, most / Math.max(across, down, 1));
  return (
    <svg width={across * by + 4} height={down * by + 4} aria-hidden="true" className="block">
      <g transform={`translate(${(across * by) / 2 + 2} ${(down * by) / 2 + 2})`}>
        <PieceShape look={look} w={across * by} h={down * by} />
      </g>
    </svg>
  );
}
