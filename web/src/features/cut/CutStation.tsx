import { useCallback, useMemo, useRef, useState } from "react";
import { type CutSheetDoc, type PageCutsDoc, type PlanDoc, takeAway } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { SketchCard } from "@/features/fit/SketchCard";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { useMayChange } from "@/features/people/useMe";
import { fitOf } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { lookOf } from "@/features/stash/looks";
import { useStashById } from "@/features/stash/useStash";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import type { PaperLook } from "@/shared/drawing/papers";
import type { Unit } from "@/shared/lengths/length";
import { Failed } from "@/shared/ui/Failed";
import { Length, Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { useWidth } from "@/shared/ui/useWidth";
import { Workbench } from "@/shared/ui/Workbench";
import { AtTable } from "./AtTable";
import { ComparePlans } from "./ComparePlans";
import { CutList } from "./CutList";
import { Machine } from "./Machine";
import {
  asTicked,
  labels,
  lockOf,
  nextSheet,
  stepAt,
  thingOf,
  withCure,
  withDone,
  withPreference,
  withWrong,
} from "./model";
import { PiecesHeld } from "./PiecesHeld";
import { RestsAway } from "./RestsAway";
import { SheetDrawing } from "./SheetDrawing";
import { Short } from "./Short";
import { Steps } from "./Steps";
import { useCuts } from "./useCuts";

const NONE: PageCutsDoc = {
  unit: "in",
  reach: 12,
  finest: 0.0625,
  list: [],
  sheets: [],
  short: [],
  outdated: [],
  stopped: false,
  cures: [],
};
/** The address of the table mode, so that it is there again after a reload. */
const TABLE = "#at-the-table";

/** What is cut from which sheet: each sheet to scale with its cuts, the cuts as trimmer settings, what is short before the first of them. */
export function CutStation({ page, plan, saved, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const unit = unitOf(fit);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const { full: outcome, shown, isImproving, stop } = useCuts(page.id, plan, way?.layout);
  const found = shown ?? NONE;
  const cuts = useMemo(() => ({ ...found, sheets: asTicked(found.sheets, plan) }), [found, plan]);
  const stash = useStashById();
  const [chosen, setChosen] = useState<number>();
  const [atTable, setAtTable] = useTable();
  const [open, setOpen] = useState<"machine" | "compare">();
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const numbers = useMemo(() => new Map(blocks.map((b) => [b.block.id, b.number])), [blocks]);
  const names = useMemo(() => labels(cuts.list, numbers), [cuts.list, numbers]);
  const labelOf = useCallback((piece: string) => names.get(piece) ?? "gone from the page", [names]);
  const at = Math.max(0, Math.min(chosen ?? nextSheet(cuts.sheets), cuts.sheets.length - 1));
  const sheet = cuts.sheets[at];
  const change = (next: PlanDoc, reason: string) => {
    if (mayChange) changePlan(next, reason);
  };
  const nameOf = (s: CutSheetDoc) => {
    const name = stash.get(thingOf(s))?.item.name ?? "A paper that is gone";
    return s.item === thingOf(s) ? name : `${name}, what is left`;
  };
  const lookOfSheet = (s: CutSheetDoc): PaperLook => {
    const found = stash.get(thingOf(s));
    return found ? lookOf(found.item, "a", unit) : { colour: "#ffffff" };
  };
  const tick = (s: CutSheetDoc, done: number) =>
    change(withDone(plan, s, done), done > s.done ? `a cut of ${nameOf(s)} made` : `a cut of ${nameOf(s)} taken back`);
  const wrong = (s: CutSheetDoc, piece: string) =>
    change(withWrong(plan, s, piece), `${labelOf(piece)} cut wrong, to be cut again`);

  return (
    <BlockNumbers numbers={[...numbers]}>
      <Workbench
        widths={[240, 372]}
        card={{
          name: "Cut list",
          content: (
            <SketchCard fit={fit} credit={page.credit} selected={undefined} lit={undefined}>
              <CutList
                list={cuts.list}
                labelOf={labelOf}
                stash={stash}
                unit={unit}
                onShow={setChosen}
                isHeld={(piece) => Object.keys(lockOf(plan, piece)).length > 0}
              />
            </SketchCard>
          ),
        }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {outcome.isError && <Failed error={outcome.error} onRetry={() => outcome.refetch()} />}
            {(answer.isPending || (way && !shown && !outcome.isError)) && <Notice>Planning the cuts…</Notice>}
            {answer.data?.conflict && (
              <Notice>
                This page can't be laid out as it stands: <Sentence text={answer.data.conflict.text} /> The Fit station
                shows what to let go.
              </Notice>
            )}
            {shown && cuts.list.length === 0 && (
              <Notice>
                Nothing is to be cut yet: choose papers at the Papers station, and their pieces come here.
              </Notice>
            )}
            {sheet && (
              <OneSheet
                sheet={sheet}
                name={nameOf(sheet)}
                look={lookOfSheet(sheet)}
                which={`sheet ${at + 1} of ${cuts.sheets.length}`}
                labelOf={labelOf}
                unit={unit}
              />
            )}
          </div>
        }
        more={{
          name: "All sheets",
          content: (
            <AllSheets
              sheets={cuts.sheets}
              at={at}
              unit={unit}
              nameOf={nameOf}
              lookOf={lookOfSheet}
              labelOf={labelOf}
              onChoose={setChosen}
            />
          ),
        }}
        ledger={
          <div className="sheet grid gap-3">
            {isImproving && shown && (
              <p role="status" className="flex items-center justify-between gap-2 text-[13px]">
                This plan works; a better one is being looked for.
                <button type="button" className="button px-2 py-0.5" onClick={stop}>
                  Take this one
                </button>
              </p>
            )}
            <Short
              cuts={cuts}
              labelOf={labelOf}
              stash={stash}
              isImproving={isImproving}
              onCure={mayChange ? (cure) => change(withCure(plan, cure), cure.text.toLowerCase()) : undefined}
            />
            {sheet && (
              <Steps
                sheet={sheet}
                name={nameOf(sheet)}
                unit={unit}
                labelOf={labelOf}
                onTick={mayChange ? (done) => tick(sheet, done) : undefined}
                onWrong={mayChange ? (piece) => wrong(sheet, piece) : undefined}
              />
            )}
            {mayChange && sheet && sheet.done < sheet.cuts.length && (
              <PiecesHeld
                list={cuts.list.filter((p) => cuts.sheets[p.sheet ?? -1] === sheet || p.state === "short")}
                plan={plan}
                sheets={cuts.sheets}
                nameOf={nameOf}
                labelOf={labelOf}
                change={change}
              />
            )}
            {mayChange && sheet && <RestsAway sheet={sheet} unit={unit} stash={stash} />}
            {cuts.sheets.some((s) => s.cuts.length > 0) && (
              <div className="flex flex-wrap items-center justify-between gap-3">
                <button type="button" className="button button-first" onClick={() => setAtTable(true)}>
                  Cut at the table
                </button>
                <span className="text-[13px] text-second">{progressOf(cuts.sheets)}</span>
              </div>
            )}
            {cuts.sheets.some((s) => s.cuts.length > 0) && (
              <div className="flex flex-wrap gap-2">
                <a className="button px-2 py-0.5" href={takeAway.cutSheets(page.id)}>
                  Print the sheets (PDF)
                </a>
                <a className="button px-2 py-0.5" href={takeAway.forMachine(page.id)}>
                  For a cutting machine (SVG)
                </a>
                <button type="button" className="button px-2 py-0.5" onClick={() => setOpen("machine")}>
                  Send to the cutting machine
                </button>
                <button type="button" className="button px-2 py-0.5" onClick={() => setOpen("compare")}>
                  Compare two plans
                </button>
              </div>
            )}
            <p className="text-[13px] text-second">
              Blades are sharp: keep fingers off the rail, cut away from yourself, close the blade when you stop, and
              follow the maker's instructions.
            </p>
          </div>
        }
      />
      {open === "machine" && (
        <Machine
          page={page.id}
          saved={saved}
          count={cuts.sheets.filter((s) => s.cuts.length > 0 && s.done === 0).length}
          onClose={() => setOpen(undefined)}
        />
      )}
      {open === "compare" && (
        <ComparePlans
          page={page.id}
          plan={plan}
          layout={way?.layout}
          unit={unit}
          nameOf={nameOf}
          lookOf={lookOfSheet}
          labelOf={labelOf}
          onTake={
            mayChange
              ? (prefers) => {
                  const few = prefers === "few-settings";
                  change(withPreference(plan, prefers), few ? "few settings of the trimmer" : "a large piece left");
                  setOpen(undefined);
                }
              : undefined
          }
          onClose={() => setOpen(undefined)}
        />
      )}
      {atTable && (
        <AtTable
          sheets={cuts.sheets.filter((s) => s.cuts.length > 0)}
          nameOf={nameOf}
          lookOf={lookOfSheet}
          labelOf={labelOf}
          unit={unit}
          onTick={mayChange ? tick : undefined}
          onWrong={mayChange ? wrong : undefined}
          onLeave={() => setAtTable(false)}
        />
      )}
    </BlockNumbers>
  );
}

/** Whether she is at the table: it stands in the address. */
function useTable() {
  const [on, setOn] = useState(window.location.hash === TABLE);
  const set = (to: boolean) => {
    window.history.replaceState(window.history.state, "", to ? TABLE : window.location.pathname);
    setOn(to);
  };
  return [on, set] as const;
}

function progressOf(sheets: readonly CutSheetDoc[]): string {
  const all = sheets.reduce((sum, s) => sum + s.cuts.length, 0);
  const done = sheets.reduce((sum, s) => sum + s.done, 0);
  if (done === 0) return "nothing is cut yet";
  return done === all ? "all is cut" : `${done} of ${all} cuts made`;
}

type OneSheetProps = {
  sheet: CutSheetDoc;
  name: string;
  look: PaperLook;
  which: string;
  labelOf: (piece: string) => string;
  unit: Unit;
};

function OneSheet({ sheet, name, look, which, labelOf, unit }: OneSheetProps) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 420);
  const room = Math.max(120, Math.min(width > 520 ? width - 230 : width - 40, 420));
  const scale = Math.min(room / sheet.w, 400 / sheet.h);
  return (
    <section aria-labelledby="sheet-in-hand" className="min-w-0">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="sheet-in-hand" className="text-[17px]">
          {name}, {which}
        </h2>
        <span className="text-[13px] text-second">
          <Length value={sheet.w} unit={unit} /> × <Length value={sheet.h} unit={unit} withUnit />
        </span>
      </div>
      <div ref={frame} className="mt-1 flex flex-wrap items-start gap-4">
        <SheetDrawing
          sheet={sheet}
          look={look}
          labelOf={labelOf}
          unit={unit}
          scale={scale}
          step={stepAt(sheet)}
          name={`${name}, ${which}, with its cuts`}
        />
        <div className="grid min-w-[150px] flex-1 content-start gap-3 pt-4 text-[14px]">
          <Sizes title="Comes off it" rows={sheet.pieces.map((p) => ({ ...p, label: labelOf(p.name) }))} unit={unit} />
          {sheet.rests.length > 0 && (
            <Sizes title="Goes back" rows={sheet.rests.map((r) => ({ ...r, label: "" }))} unit={unit} />
          )}
        </div>
      </div>
    </section>
  );
}

type Row = { name: string; part: string; w: number; h: number; label: string };

function Sizes({ title, rows, unit }: { title: string; rows: readonly Row[]; unit: Unit }) {
  return (
    <div>
      <h3>{title}</h3>
      <ul className="mt-1 grid gap-0.5">
        {rows.map((r) => (
          <li key={`${r.name}-${r.part}`} className="flex justify-between gap-3 border-hairline border-b py-0.5">
            <span>{r.label}</span>
            <span className="num">
              <Length value={r.w} unit={unit} /> × <Length value={r.h} unit={unit} />
            </span>
          </li>
        ))}
      </ul>
    </div>
  );
}

type AllProps = {
  sheets: readonly CutSheetDoc[];
  at: number;
  unit: Unit;
  nameOf: (s: CutSheetDoc) => string;
  lookOf: (s: CutSheetDoc) => PaperLook;
  labelOf: (piece: string) => string;
  onChoose: (at: number) => void;
};

function AllSheets({ sheets, at, unit, nameOf, lookOf: look, labelOf, onChoose }: AllProps) {
  if (sheets.length === 0) return null;
  const largest = Math.max(...sheets.map((s) => Math.max(s.w, s.h)));
  return (
    <section aria-labelledby="all-sheets">
      <h2 id="all-sheets" className="text-[15px]">
        All sheets of this page
      </h2>
      <ul className="mt-1 flex flex-wrap items-end gap-2">
        {sheets.map((s, n) => (
          <li key={`${s.item}-${s.copy}`}>
            <button
              type="button"
              aria-pressed={n === at}
              onClick={() => onChoose(n)}
              className={`grid justify-items-center gap-0.5 rounded p-1 text-[13px] ${n === at ? "bg-sheet outline-2 outline-ink outline" : ""}`}
            >
              <SheetDrawing
                sheet={s}
                look={look(s)}
                labelOf={labelOf}
                unit={unit}
                scale={72 / largest}
                small
                name={nameOf(s)}
              />
              <span className="max-w-[84px] truncate font-semibold">{nameOf(s)}</span>
              <span className="text-second">
                {s.cuts.length > 0 && s.done === s.cuts.length ? "cut" : `${Math.round(s.used * 100)} % used`}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
