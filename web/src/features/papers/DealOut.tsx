import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import {
  api,
  type LayoutDoc,
  type PaperedPieceDoc,
  type PaperRefDoc,
  type PlanDoc,
  type RankedPaperDoc,
} from "@/api/client";
import { BUSY, type StashById, sideName, sideOf } from "@/features/stash/looks";
import { PaperSwatch } from "@/features/stash/PaperSwatch";
import { small } from "@/features/stash/words";
import { Failed } from "@/shared/ui/Failed";
import { Segments } from "@/shared/ui/Segments";
import { choiceOf, isSamePaper, withChoice, withSwapped } from "./model";
import { UnitTable } from "./UnitTable";

type Props = {
  page: string;
  plan: PlanDoc;
  layout: LayoutDoc;
  /** The unit in hand: papers go over it and its fellows. */
  piece: PaperedPieceDoc;
  /** It and its fellows. */
  units: readonly PaperedPieceDoc[];
  label: string;
  ranked: readonly RankedPaperDoc[];
  stash: StashById;
  mayChange: boolean;
  change: (next: PlanDoc, reason: string) => void;
};

/** So many papers are taken when none are chosen yet. */
const AT_FIRST = 3;
const MOST_OFFERED = 10;

/** Papers dealt out over the units of a grid or ring: none beside its like, even counts, equal ones far apart. */
export function DealOut({ page, plan, layout, piece, units, label, ranked, stash, mayChange, change }: Props) {
  const choice = choiceOf(plan, piece);
  const given = Object.values(choice.units ?? {});
  const used = distinct(given);
  const offered = distinct([...used, ...ranked.filter((r) => r.serves)]).slice(0, Math.max(MOST_OFFERED, used.length));
  const [picked, setPicked] = useState<readonly PaperRefDoc[]>();
  const chosen = picked ?? (used.length > 0 ? used : atFirst(offered, stash));
  const [seed, setSeed] = useState(1);
  const [rhythm, setRhythm] = useState(false);
  const locked = new Set(choice.locked ?? []);
  const unitName = piece.unit ?? "";
  const deal = useMutation({
    mutationFn: (next: number) =>
      api.dealtPapers({
        page,
        unit: plan.unit,
        papers: plan.papers ?? {},
        layout,
        block: piece.of ?? "",
        part: piece.part ?? 0,
        deal: [...chosen],
        seed: next,
        rhythm,
      }),
    onSuccess: (dealt, next) => {
      setSeed(next + 1);
      change(withChoice(plan, piece, { units: dealt.units }), `papers dealt out over ${label}`);
    },
  });
  const toggle = (paper: PaperRefDoc) =>
    setPicked(
      chosen.some((p) => isSamePaper(p, paper)) ? chosen.filter((p) => !isSamePaper(p, paper)) : [...chosen, paper],
    );
  const lock = () => {
    const next = locked.has(unitName) ? [...locked].filter((u) => u !== unitName) : [...locked, unitName];
    change(
      withChoice(plan, piece, { locked: next.length > 0 ? next : undefined }),
      `unit ${unitName} ${locked.has(unitName) ? "free" : "locked"}`,
    );
  };
  return (
    <section aria-labelledby="deal-out" className="grid gap-1.5 border-hairline border-t pt-2">
      <h2 id="deal-out">Deal papers out</h2>
      <p className="text-[13px] text-second">
        Over all units of this block: none beside its like, as even as can be, equal ones far apart.
      </p>
      <ul className="flex flex-wrap gap-1.5">
        {offered.map((paper) => {
          const item = stash.get(paper.item)?.item;
          const on = chosen.some((p) => isSamePaper(p, paper));
          return (
            item && (
              <li key={`${paper.item}:${paper.side ?? "a"}`}>
                <button
                  type="button"
                  aria-pressed={on}
                  aria-label={sideName(item, paper.side)}
                  title={sideName(item, paper.side)}
                  disabled={!mayChange}
                  className={`block cursor-pointer rounded-[2px] ${on ? "outline-2 outline-ink outline-offset-1" : "opacity-55"}`}
                  onClick={() => toggle(paper)}
                >
                  <PaperSwatch item={item} side={paper.side} width={44} height={44} perInch={20} />
                </button>
              </li>
            )
          );
        })}
      </ul>
      {mayChange && (
        <div className="flex flex-wrap items-center gap-2">
          <Segments
            label="How they are dealt"
            value={rhythm ? "rhythm" : "spread"}
            options={[
              { value: "spread", label: "far apart" },
              { value: "rhythm", label: "one, two, three" },
            ]}
            onChoose={(how) => setRhythm(how === "rhythm")}
          />
          <button
            type="button"
            className="button button-first"
            disabled={chosen.length === 0 || deal.isPending}
            onClick={() => deal.mutate(seed)}
          >
            {given.length > 0 ? "Deal another way" : "Deal them out"}
          </button>
          {choice.units?.[unitName] && (
            <button type="button" className="button" aria-pressed={locked.has(unitName)} onClick={lock}>
              {locked.has(unitName) ? "Locked here" : "Lock this one"}
            </button>
          )}
          <span className="text-[13px] text-second">
            {chosen.length === 1
              ? "one paper taken"
              : `${chosen.length === 0 ? "no" : small(chosen.length)} papers taken`}
          </span>
        </div>
      )}
      {mayChange && given.length > 0 && (
        <Swap
          piece={piece}
          units={units}
          onSwap={(other) =>
            change(withSwapped(plan, piece, unitName, other), `units ${unitName} and ${other} change papers`)
          }
        />
      )}
      {deal.isError && <Failed error={deal.error} />}
      {deal.data && <Outcome met={deal.data.met.length} short={deal.data.short} />}
      <UnitTable
        plan={plan}
        layout={layout}
        piece={piece}
        papers={chosen}
        stash={stash}
        mayChange={mayChange}
        change={change}
      />
    </section>
  );
}

/** The unit in hand and another one change their papers. */
function Swap({
  piece,
  units,
  onSwap,
}: {
  piece: PaperedPieceDoc;
  units: readonly PaperedPieceDoc[];
  onSwap: (other: string) => void;
}) {
  const others = units.flatMap((u) => (u.unit && u.unit !== piece.unit ? [u.unit] : []));
  return (
    <label className="flex items-center gap-2 text-[13px] text-second">
      Change papers with unit
      <select className="field py-0.5" value="" onChange={(e) => e.target.value && onSwap(e.target.value)}>
        <option value="">choose one</option>
        {others.map((unit) => (
          <option key={unit} value={unit}>
            {unit.replace("/", ", ")}
          </option>
        ))}
      </select>
    </label>
  );
}

/** The best ones, but only one of them busy. */
function atFirst(offered: readonly PaperRefDoc[], stash: StashById): PaperRefDoc[] {
  const isBusy = (paper: PaperRefDoc) => {
    const item = stash.get(paper.item)?.item;
    return item !== undefined && sideOf(item, paper.side).busy >= BUSY;
  };
  const busiest = offered.find(isBusy);
  return offered.filter((p) => p === busiest || !isBusy(p)).slice(0, AT_FIRST);
}

function Outcome({ met, short }: { met: number; short: number }) {
  if (met === 0 && short === 0) return <p className="text-[13px]">None lies beside its like.</p>;
  return (
    <p className="text-[13px] text-measure">
      {met > 0 &&
        `${met === 1 ? "One pair lies" : `${small(met)} pairs lie`} beside their like: one paper more would help. `}
      {short > 0 && `${short === 1 ? "One unit has" : `${small(short)} units have`} no paper: there is not enough.`}
    </p>
  );
}

function distinct(papers: readonly PaperRefDoc[]): PaperRefDoc[] {
  const seen = new Map(papers.map((p) => [`${p.item}:${p.side ?? "a"}`, { item: p.item, side: p.side ?? "a" }]));
  return [...seen.values()];
}
