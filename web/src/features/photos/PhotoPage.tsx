import { useEffect, useState } from "react";
import type { FitDoc, LayoutDoc, PlacedPhotoDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { tagPlaces } from "@/features/fit/tagPlaces";
import { extent, type Numbered } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Rulers } from "@/shared/drawing/Rulers";
import { ROOM, RULER, usePageScale } from "@/shared/drawing/usePageScale";
import { SizeText } from "@/shared/ui/SizeText";
import { PrintSquare } from "./PrintSquare";
import { useCarried } from "./useCarried";

type Props = {
  fit: FitDoc;
  layout: LayoutDoc;
  blocks: readonly Numbered[];
  placed: readonly PlacedPhotoDoc[];
  inHand: string | undefined;
  onTake: (print: string) => void;
  onSwap: ((a: string, b: string) => void) | undefined;
  /** The page's scale, in pixels an inch, once it is known. */
  onScale: (perInch: number) => void;
};

/** The page with its photos, to scale. A photo carried onto another changes places with it. */
export function PhotoPage({ fit, layout, blocks, placed, inHand, onTake, onSwap, onScale }: Props) {
  const { canvas } = layout;
  const unit = unitOf(fit);
  const { frame, scale, size } = usePageScale(canvas);
  const tags = tagPlaces(blocks, scale, canvas);
  useEffect(() => onScale(unit === "mm" ? scale * 25.4 : scale), [onScale, scale, unit]);
  const photos = blocks.filter((b) => b.block.photo);
  const title = placed.length === 1 ? "One photo" : `${countWord(placed.length)} photos`;
  const [over, setOver] = useState<string>();
  return (
    <section aria-labelledby="page-title" className="min-w-0">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="page-title" className="text-[17px]">
          {placed.length > 0 ? title : "Photos"} on {canvas.pages === 2 ? "two pages" : "one page"}
        </h2>
        <span className="text-[13px] text-second">
          <SizeText page={canvas.page} pages={canvas.pages} unit={unit} />
        </span>
      </div>
      <div ref={frame}>
        <svg
          width={RULER + size.w + ROOM}
          height={RULER + size.h + ROOM}
          role="img"
          aria-label="The page with its photos, to scale"
          className="mx-auto block"
        >
          <Rulers canvas={canvas} unit={unit} scale={scale} at={RULER} />
          <g transform={`translate(${RULER} ${RULER})`}>
            <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
            {photos.map(({ block, number }) => (
              <PhotoHandle
                key={block.id}
                box={extent(block)}
                scale={scale}
                print={block.photo as string}
                label={`Photo ${number}, print ${block.photo}`}
                state={block.photo === inHand ? "in hand" : block.photo === over ? "below" : "free"}
                onTake={onTake}
                onOver={setOver}
                onSwap={onSwap}
              />
            ))}
            <g aria-hidden style={{ pointerEvents: "none" }}>
              {tags.map(({ number, block, x, y }) => {
                const lit = block.photo === inHand && inHand !== undefined;
                if (!block.photo) return <NumberTag key={block.id} x={x} y={y} number={number} />;
                const box = extent(block);
                const [left, top] = [box.x * scale + 13, box.y * scale + 13];
                return (
                  <g key={block.id}>
                    <NumberTag x={left} y={top} number={number} lit={lit} />
                    <PrintSquare x={left + 20} y={top} id={block.photo} />
                  </g>
                );
              })}
            </g>
          </g>
        </svg>
      </div>
    </section>
  );
}

const WORDS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten", "Eleven", "Twelve"];
const countWord = (count: number) => WORDS[count] ?? String(count);

type HandleProps = {
  box: { x: number; y: number; w: number; h: number };
  scale: number;
  print: string;
  label: string;
  state: "in hand" | "below" | "free";
  onTake: (print: string) => void;
  onOver: (print: string | undefined) => void;
  onSwap: ((a: string, b: string) => void) | undefined;
};

function PhotoHandle({ box, scale, print, label, state, onTake, onOver, onSwap }: HandleProps) {
  const carried = useCarried(print, { onTake, onOver, onSwap });
  return (
    <rect
      x={box.x * scale}
      y={box.y * scale}
      width={box.w * scale}
      height={box.h * scale}
      fill="#ffffff"
      fillOpacity={state === "below" ? 0.35 : 0}
      stroke={state === "free" ? "none" : "#c2185b"}
      strokeWidth={2.5}
      className="cursor-pointer"
      style={{ touchAction: "pan-x pan-y" }}
      data-print={print}
      {...carried()}
    >
      <title>{label}</title>
    </rect>
  );
}
