import type { BoxDoc, ClustersLaidDoc, FitDoc, LaidClusterDoc, LayoutDoc, PageFindingDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { tagPlaces } from "@/features/fit/tagPlaces";
import { inUnit, type StashById } from "@/features/stash/looks";
import type { Numbered } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { PieceShape } from "@/shared/drawing/PieceShape";
import { Rulers } from "@/shared/drawing/Rulers";
import { ROOM, RULER, usePageScale } from "@/shared/drawing/usePageScale";
import { LengthSpans } from "@/shared/ui/Length";
import { SizeText } from "@/shared/ui/SizeText";
import { letterOf, placeOf } from "./model";
import { Pieces, pieceLook } from "./Pieces";

type Props = {
  fit: FitDoc;
  layout: LayoutDoc;
  blocks: readonly Numbered[];
  laid: ClustersLaidDoc | undefined;
  stash: StashById;
  /** The thing that is strewn. */
  strewn: string | undefined;
  findings: readonly PageFindingDoc[];
  shown: string | undefined;
  ghost: BoxDoc | undefined;
  lit: { block: string; piece: number } | undefined;
  onShow: (finding: PageFindingDoc) => void;
  onPick: (block: string, piece: number) => void;
  onMoved: ((cluster: LaidClusterDoc, piece: number, to: { x: number; y: number }) => void) | undefined;
};

/** The page, papers and photos paler, its pieces in full colour, with what was found, lettered as in the list. */
export function CheckedPage(props: Props) {
  const { fit, layout, blocks, laid, stash, findings, shown, ghost, lit, onShow, onPick, onMoved } = props;
  const { canvas } = layout;
  const { frame, scale, size } = usePageScale(canvas);
  const tags = tagPlaces(blocks, scale, canvas);
  const small = props.strewn ? stash.get(props.strewn)?.item : undefined;
  const side = (v: number | undefined) => inUnit(v ?? 0.25, small?.unit ?? "in", fit.unit) * scale;
  return (
    <section aria-labelledby="page-title" className="min-w-0">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="page-title" className="text-[17px] first-letter:uppercase">
          <SizeText page={canvas.page} pages={canvas.pages} unit={unitOf(fit)} />
        </h2>
        <span className="text-[13px] text-second">papers and photos shown paler, so that the pieces stand out</span>
      </div>
      <div ref={frame}>
        <svg
          width={RULER + size.w + ROOM}
          height={RULER + size.h + ROOM}
          role="img"
          aria-label="The page with its clusters and what was found, to scale"
          className="mx-auto block"
        >
          <Rulers canvas={canvas} unit={unitOf(fit)} scale={scale} at={RULER} />
          <g transform={`translate(${RULER} ${RULER})`}>
            <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
            <rect width={size.w} height={size.h} fill="#ffffff" fillOpacity={0.42} />
            {laid?.triangle && <Thread triangle={laid.triangle} scale={scale} unit={unitOf(fit)} />}
            {small &&
              (laid?.strewn ?? []).map((at) => (
                <g key={`${at.x} ${at.y}`} transform={`translate(${at.x * scale} ${at.y * scale})`}>
                  <PieceShape
                    look={pieceLook(stash, props.strewn ?? "")}
                    w={side(small.size?.w)}
                    h={side(small.size?.h)}
                  />
                </g>
              ))}
            <Pieces
              clusters={laid?.clusters ?? []}
              stash={stash}
              scale={scale}
              lit={lit}
              onPick={onPick}
              onMoved={onMoved}
            />
            <g aria-hidden style={{ pointerEvents: "none" }}>
              {tags.map(({ number, block, x, y }) => (
                <NumberTag key={block.id} x={x} y={y} number={number} lit={false} />
              ))}
            </g>
            {findings.map((finding, n) => {
              const place = placeOf(finding, layout);
              return (
                place && (
                  <Mark
                    key={finding.key}
                    place={place}
                    scale={scale}
                    letter={letterOf(n)}
                    lit={shown === finding.key}
                    onShow={() => onShow(finding)}
                  />
                )
              );
            })}
            {ghost && (
              <rect
                x={ghost.x * scale}
                y={ghost.y * scale}
                width={ghost.w * scale}
                height={ghost.h * scale}
                fill="#0b7d69"
                fillOpacity={0.18}
                stroke="#0b7d69"
                strokeWidth={2.5}
                strokeDasharray="7 4"
                style={{ pointerEvents: "none" }}
              />
            )}
          </g>
        </svg>
      </div>
    </section>
  );
}

/** The triangle of three clusters, with how long its sides are. */
function Thread({
  triangle,
  scale,
  unit,
}: {
  triangle: NonNullable<ClustersLaidDoc["triangle"]>;
  scale: number;
  unit: "in" | "mm";
}) {
  const corners = triangle.corners.map((c) => ({ x: c.x * scale, y: c.y * scale }));
  const step = unit === "in" ? 8 : 0.5;
  return (
    <g aria-hidden style={{ pointerEvents: "none" }}>
      <polygon points={corners.map((c) => `${c.x},${c.y}`).join(" ")} fill="none" stroke="#0b7d69" strokeWidth={1.4} />
      {corners.map((a, n) => {
        const b = corners[(n + 1) % corners.length];
        const side = triangle.sides[n];
        if (!b || side === undefined) return null;
        const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
        return (
          <g key={`${a.x} ${b.x}`} transform={`translate(${x} ${y})`}>
            <rect x={-22} y={-10} width={44} height={20} rx={3} fill="#ffffff" stroke="#0b7d69" />
            <text textAnchor="middle" dy="0.35em" fontSize={12.5} fontWeight={600} fill="#0a5c4e">
              <LengthSpans value={Math.round(side * step) / step} unit={unit} />
            </text>
          </g>
        );
      })}
    </g>
  );
}

type MarkProps = { place: BoxDoc; scale: number; letter: string; lit: boolean; onShow: () => void };

function Mark({ place, scale, letter, lit, onShow }: MarkProps) {
  const [x, y, w, h] = [place.x * scale, place.y * scale, place.w * scale, place.h * scale];
  const thin = Math.min(w, h) < 8;
  // At the corner, so that what is meant stays in sight.
  const [cx, cy] = [x + w, y];
  return (
    <g>
      <rect
        x={x - (thin ? 2 : 0)}
        y={y - (thin ? 2 : 0)}
        width={w + (thin ? 4 : 0)}
        height={h + (thin ? 4 : 0)}
        fill="#c2185b"
        fillOpacity={lit ? 0.22 : 0.04}
        stroke="#c2185b"
        strokeWidth={lit ? 2.5 : 1.2}
        strokeDasharray={thin ? undefined : "5 3"}
        style={{ pointerEvents: "none" }}
      />
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a finding is chosen by keyboard in the list beside the page */}
      <g className="cursor-pointer" onClick={onShow}>
        <rect x={cx - 9} y={cy - 9} width={18} height={18} rx={2} fill="#c2185b" stroke="#ffffff" strokeWidth={1.5} />
        <text x={cx} y={cy} dy="0.36em" textAnchor="middle" fontSize={12.5} fontWeight={700} fill="#ffffff">
          {letter}
        </text>
      </g>
    </g>
  );
}
