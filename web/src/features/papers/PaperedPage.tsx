import { useState } from "react";
import type { FitDoc, LayoutDoc, PaperedPieceDoc, PaperRefDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { tagPlaces } from "@/features/fit/tagPlaces";
import type { Numbered } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { type PaperLooks, PapersOf } from "@/shared/drawing/papers";
import { Rulers } from "@/shared/drawing/Rulers";
import { ROOM, RULER, usePageScale } from "@/shared/drawing/usePageScale";
import { Segments } from "@/shared/ui/Segments";
import { SizeText } from "@/shared/ui/SizeText";
import { papersUsed } from "./model";

type Props = {
  fit: FitDoc;
  layout: LayoutDoc;
  blocks: readonly Numbered[];
  pieces: readonly PaperedPieceDoc[];
  inHand: PaperedPieceDoc | undefined;
  labelOf: (piece: PaperedPieceDoc) => string;
  onTake: (name: string) => void;
  onDropPaper: ((piece: PaperedPieceDoc, paper: PaperRefDoc) => void) | undefined;
  /** What the papers look like from behind, where a page can be seen through. */
  backs: PaperLooks | undefined;
};

const WORDS = ["No paper", "One paper", "Two papers", "Three papers", "Four papers", "Five papers", "Six papers"];

/** What a dragged paper is told by. */
export const PAPER = "application/x-metrosk-paper";

/** The page in its true papers, to scale; the piece in hand with what shows in a solid line and what hides in a dashed one. */
export function PaperedPage({ fit, layout, blocks, pieces, inHand, labelOf, onTake, onDropPaper, backs }: Props) {
  const [over, setOver] = useState<string>();
  const [side, setSide] = useState<"front" | "back">("front");
  const behind = side === "back" ? backs : undefined;
  const { canvas } = layout;
  const unit = unitOf(fit);
  const { frame, scale, size } = usePageScale(canvas);
  const tags = tagPlaces(blocks, scale, canvas);
  const count = papersUsed(pieces);
  return (
    <section aria-labelledby="page-title" className="min-w-0">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="page-title" className="text-[17px]">
          {WORDS[count] ?? `${count} papers`} on {canvas.pages === 2 ? "two pages" : "one page"}
        </h2>
        {backs && (
          <Segments
            label="Which side of the page"
            value={side}
            options={[
              { value: "front", label: "front" },
              { value: "back", label: "seen from the back" },
            ]}
            onChoose={setSide}
          />
        )}
        <span className="text-[13px] text-second">
          <SizeText page={canvas.page} pages={canvas.pages} unit={unit} />
        </span>
      </div>
      <div ref={frame}>
        <svg
          width={RULER + size.w + ROOM}
          height={RULER + size.h + ROOM}
          role="img"
          aria-label={behind ? "The page seen through from the back, to scale" : "The page in its papers, to scale"}
          className="mx-auto block"
        >
          <Rulers canvas={canvas} unit={unit} scale={scale} at={RULER} />
          <g transform={`translate(${RULER} ${RULER})`}>
            {behind ? (
              <g transform={`translate(${size.w} 0) scale(-1 1)`}>
                <PapersOf value={behind}>
                  <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} fromBehind />
                </PapersOf>
              </g>
            ) : (
              <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
            )}
            {(behind ? [] : pieces).map((piece) => (
              <PieceHandle
                key={piece.name}
                piece={piece}
                pageWidth={canvas.page.w}
                scale={scale}
                label={labelOf(piece)}
                state={piece.name === inHand?.name ? "in hand" : piece.name === over ? "below" : "free"}
                onTake={onTake}
                onOver={setOver}
                onDropPaper={onDropPaper}
              />
            ))}
            <g aria-hidden style={{ pointerEvents: "none" }}>
              {tags.map(({ number, block, x, y }) => (
                <NumberTag
                  key={block.id}
                  x={behind ? size.w - x : x}
                  y={y}
                  number={number}
                  lit={block.id === inHand?.block}
                />
              ))}
            </g>
          </g>
        </svg>
      </div>
    </section>
  );
}

type HandleProps = {
  piece: PaperedPieceDoc;
  pageWidth: number;
  scale: number;
  label: string;
  state: "in hand" | "below" | "free";
  onTake: (name: string) => void;
  onOver: (name: string | undefined) => void;
  onDropPaper: Props["onDropPaper"];
};

function PieceHandle({ piece, pageWidth, scale, label, state, onTake, onOver, onDropPaper }: HandleProps) {
  const off = piece.page * pageWidth;
  const box = (b: { x: number; y: number; w: number; h: number }) => ({
    x: (b.x + off) * scale,
    y: b.y * scale,
    width: b.w * scale,
    height: b.h * scale,
  });
  const cut = box(piece.cut);
  const turned = piece.turn
    ? { transform: `rotate(${piece.turn} ${cut.x + cut.width / 2} ${cut.y + cut.height / 2})` }
    : {};
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a piece is chosen by keyboard in the ledger's list of pieces
    <g
      className="cursor-pointer"
      data-piece={piece.name}
      onClick={() => onTake(piece.name)}
      onDragOver={(e) => {
        if (!onDropPaper || !e.dataTransfer.types.includes(PAPER)) return;
        e.preventDefault();
        onOver(piece.name);
      }}
      onDragLeave={() => onOver(undefined)}
      onDrop={(e) => {
        onOver(undefined);
        const [item, side] = e.dataTransfer.getData(PAPER).split(":");
        if (!item || !onDropPaper) return;
        e.preventDefault();
        onTake(piece.name);
        onDropPaper(piece, { item, side: side === "b" ? "b" : "a" });
      }}
    >
      <title>{label}</title>
      <rect {...box(piece.shows)} fill="#ffffff" fillOpacity={state === "below" ? 0.4 : 0} />
      {state === "in hand" && (
        <>
          <rect {...cut} {...turned} fill="none" stroke="#ffffff" strokeWidth={3.5} />
          <rect {...cut} {...turned} fill="none" stroke="#c2185b" strokeWidth={1.6} strokeDasharray="5 4" />
          <rect {...box(piece.shows)} fill="none" stroke="#c2185b" strokeWidth={2.2} />
          {piece.hole && (
            <rect {...box(piece.hole)} fill="#ffffff" fillOpacity={0.25} stroke="#c2185b" strokeDasharray="2 3" />
          )}
          {piece.dies?.places.map((place) => (
            <rect
              key={`${place.x} ${place.y}`}
              data-die
              {...box(place)}
              rx={4}
              fill="#ffffff"
              fillOpacity={0.35}
              stroke="#c2185b"
              strokeWidth={1.4}
            />
          ))}
        </>
      )}
    </g>
  );
}
