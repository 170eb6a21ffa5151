import { useMemo, useState } from "react";
import type { BoxDoc, CureDoc, FindingDoc, FitDoc, LayoutDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { SketchCard } from "@/features/fit/SketchCard";
import { tagPlaces } from "@/features/fit/tagPlaces";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { useMayChange } from "@/features/people/useMe";
import { fitOf, withFit } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { type Numbered, numbered } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Rulers } from "@/shared/drawing/Rulers";
import { ROOM, RULER, usePageScale } from "@/shared/drawing/usePageScale";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { SizeText } from "@/shared/ui/SizeText";
import { Workbench } from "@/shared/ui/Workbench";
import { inLine, keyOf, letterOf, placeOf, withCure } from "./model";
import { useFindings } from "./useFindings";

/** What an experienced eye would see before the glue: each finding with its place on the page, why it matters, and what could be done.
 * Placing clusters comes to this station later. */
export function ClustersStation({ page, plan, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const outcome = useFindings(way?.layout);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [shown, setShown] = useState<string>();
  const [ghost, setGhost] = useState<BoxDoc>();
  const findings = useMemo(
    () => (outcome.data?.findings ?? []).filter((f) => !hidden.has(keyOf(f))),
    [outcome.data, hidden],
  );
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const change = (next: FitDoc | undefined, reason: string) => {
    if (mayChange && next) changePlan(withFit(plan, next), reason);
  };
  const layout = way?.layout;
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[240, 372]}
        card={{
          name: "Sketch card",
          content: (
            <SketchCard fit={fit} credit={page.credit} selected={undefined} lit={undefined}>
              <p className="mt-2 text-[13px] text-second">
                Looked for so far: empty paper that is shut in between blocks, and edges that nearly agree. Placing
                clusters, and more checks, come to this station later. Undo takes a cure back.
              </p>
            </SketchCard>
          ),
        }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {outcome.isError && <Failed error={outcome.error} onRetry={() => outcome.refetch()} />}
            {(answer.isPending || (layout && outcome.isPending)) && <Notice>Looking at the page…</Notice>}
            {answer.data?.conflict && (
              <Notice>
                This page can't be laid out as it stands: <Sentence text={answer.data.conflict.text} /> The Fit station
                shows what to let go.
              </Notice>
            )}
            {layout && (
              <CheckedPage
                fit={fit}
                layout={layout}
                blocks={blocks}
                findings={findings}
                shown={shown}
                ghost={ghost}
                onShow={setShown}
              />
            )}
          </div>
        }
        ledger={
          <div className="sheet grid gap-3">
            <h2 className="text-[17px]">Before the glue</h2>
            {outcome.data && findings.length === 0 && (
              <p>Nothing is shut in, and no edges nearly agree{hidden.size > 0 ? ", but for what you let be" : ""}.</p>
            )}
            <ol className="grid gap-3">
              {layout &&
                findings.map((finding, n) => (
                  <Finding
                    key={keyOf(finding)}
                    finding={finding}
                    letter={letterOf(n)}
                    lit={shown === keyOf(finding)}
                    mayChange={mayChange}
                    canDo={(cure) => withCure(fit, layout, cure) !== undefined}
                    onShow={() => setShown(keyOf(finding))}
                    onGhost={setGhost}
                    onCure={(cure) => change(withCure(fit, layout, cure), cure.text.replace(/\.$/, ""))}
                    onInLine={
                      inLine(fit, layout, finding) &&
                      (() => change(inLine(fit, layout, finding), `two ${finding.edge} edges put in line`))
                    }
                    onLetBe={() => setHidden((h) => new Set([...h, keyOf(finding)]))}
                  />
                ))}
            </ol>
            <div className="flex flex-wrap gap-2">
              {hidden.size > 0 && (
                <button type="button" className="button" onClick={() => setHidden(new Set())}>
                  Show again what I let be ({hidden.size})
                </button>
              )}
            </div>
          </div>
        }
      />
    </BlockNumbers>
  );
}

type FindingProps = {
  finding: FindingDoc;
  letter: string;
  lit: boolean;
  mayChange: boolean;
  canDo: (cure: CureDoc) => boolean;
  onShow: () => void;
  onGhost: (box: BoxDoc | undefined) => void;
  onCure: (cure: CureDoc) => void;
  /** None where the fit can't hold one of them to the other. */
  onInLine: (() => void) | undefined;
  onLetBe: () => void;
};

const WHY: Record<string, string> = {
  trapped: "The eye stops at a hole that nothing explains; open to the edge, or filled, it rests.",
  near: "Nearly in line looks like a slip; in line or clearly apart looks meant.",
};

function Finding(props: FindingProps) {
  const { finding, letter, lit, mayChange, canDo, onShow, onGhost, onCure, onInLine, onLetBe } = props;
  return (
    <li className={`grid gap-1.5 border-hairline border-t pt-2 ${lit ? "bg-measure/10" : ""}`}>
      <button type="button" className="flex gap-2 text-left" aria-pressed={lit} onClick={onShow}>
        <span className="grid h-6 w-6 shrink-0 place-items-center rounded-full bg-measure font-bold text-[13px] text-sheet">
          {letter}
        </span>
        <span>
          <Sentence text={finding.text} />
        </span>
      </button>
      <p className="text-[13px] text-second">{WHY[finding.what]}</p>
      <ul className="grid gap-1">
        {(finding.cures ?? []).map((cure) => (
          <li key={cure.text} className="flex items-start justify-between gap-2">
            <span>
              <Sentence text={cure.text} />
            </span>
            <span className="flex shrink-0 gap-1">
              <button
                type="button"
                className="button px-2 py-0.5 text-[13px]"
                aria-label={`See it: ${cure.text}`}
                onClick={() => onGhost(cure.box)}
              >
                See it
              </button>
              {mayChange && cure.block && canDo(cure) && (
                <button
                  type="button"
                  className="button px-2 py-0.5 text-[13px]"
                  aria-label={`Try it: ${cure.text}`}
                  onClick={() => {
                    onGhost(undefined);
                    onCure(cure);
                  }}
                >
                  Try it
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        {mayChange && onInLine && (
          <button type="button" className="button px-2 py-0.5 text-[13px]" onClick={onInLine}>
            Put them in line
          </button>
        )}
        <button type="button" className="button px-2 py-0.5 text-[13px]" onClick={onLetBe}>
          Let it be
        </button>
      </div>
    </li>
  );
}

type PageProps = {
  fit: FitDoc;
  layout: LayoutDoc;
  blocks: readonly Numbered[];
  findings: readonly FindingDoc[];
  shown: string | undefined;
  ghost: BoxDoc | undefined;
  onShow: (key: string) => void;
};

/** The page with its findings, lettered as in the list; a cure that is looked at lies on it as a ghost. */
function CheckedPage({ fit, layout, blocks, findings, shown, ghost, onShow }: PageProps) {
  const { canvas } = layout;
  const { frame, scale, size } = usePageScale(canvas);
  const tags = tagPlaces(blocks, scale, canvas);
  const count = findings.length;
  return (
    <section aria-labelledby="page-title" className="min-w-0">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="page-title" className="text-[17px]">
          {count === 0 ? "Nothing to look at" : count === 1 ? "One thing to look at" : `${count} things to look at`}
        </h2>
        <span className="text-[13px] text-second">
          <SizeText page={canvas.page} pages={canvas.pages} unit={unitOf(fit)} />
        </span>
      </div>
      <div ref={frame}>
        <svg
          width={RULER + size.w + ROOM}
          height={RULER + size.h + ROOM}
          role="img"
          aria-label="The page with what was found, to scale"
          className="mx-auto block"
        >
          <Rulers canvas={canvas} unit={unitOf(fit)} scale={scale} at={RULER} />
          <g transform={`translate(${RULER} ${RULER})`}>
            <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
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
                    key={keyOf(finding)}
                    place={place}
                    scale={scale}
                    letter={letterOf(n)}
                    lit={shown === keyOf(finding)}
                    onShow={() => onShow(keyOf(finding))}
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
              />
            )}
          </g>
        </svg>
      </div>
    </section>
  );
}

type MarkProps = { place: BoxDoc; scale: number; letter: string; lit: boolean; onShow: () => void };

function Mark({ place, scale, letter, lit, onShow }: MarkProps) {
  const [x, y, w, h] = [place.x * scale, place.y * scale, place.w * scale, place.h * scale];
  const thin = Math.min(w, h) < 8;
  const [cx, cy] = [x + w / 2, y + h / 2];
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a finding is chosen by keyboard in the list beside the page
    <g className="cursor-pointer" onClick={onShow}>
      <rect
        x={x - (thin ? 2 : 0)}
        y={y - (thin ? 2 : 0)}
        width={w + (thin ? 4 : 0)}
        height={h + (thin ? 4 : 0)}
        fill="#c2185b"
        fillOpacity={lit ? 0.3 : 0.12}
        stroke="#c2185b"
        strokeWidth={lit ? 2.5 : 1.2}
        strokeDasharray={thin ? undefined : "5 3"}
      />
      <circle cx={cx} cy={cy} r={10} fill="#c2185b" stroke="#ffffff" strokeWidth={1.5} />
      <text x={cx} y={cy + 4.5} textAnchor="middle" fontSize={12.5} fontWeight={700} fill="#ffffff">
        {letter}
      </text>
    </g>
  );
}
