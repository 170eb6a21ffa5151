import type { CutSheetDoc, LayoutDoc, PageCutsDoc, PlanDoc } from "@/api/client";
import type { PaperLook } from "@/shared/drawing/papers";
import type { Unit } from "@/shared/lengths/length";
import { Failed } from "@/shared/ui/Failed";
import { Length } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { countsOf, type Preference, preferenceOf, withPreference } from "./model";
import { SheetDrawing } from "./SheetDrawing";
import { useCuts } from "./useCuts";

type Props = {
  page: string;
  plan: PlanDoc;
  layout: LayoutDoc | undefined;
  unit: Unit;
  nameOf: (sheet: CutSheetDoc) => string;
  lookOf: (sheet: CutSheetDoc) => PaperLook;
  labelOf: (piece: string) => string;
  onTake: ((preference: Preference) => void) | undefined;
  onClose: () => void;
};

const WAYS: readonly { value: Preference; title: string; about: string }[] = [
  { value: "largest-rest", title: "A large piece left", about: "What is left of a sheet stays in one piece." },
  { value: "few-settings", title: "Few settings", about: "The trimmer is set as seldom as can be." },
];

/** Two plans side by side: sheets opened, the largest piece left, how often the trimmer is set. */
export function ComparePlans({ page, plan, layout, unit, nameOf, lookOf, labelOf, onTake, onClose }: Props) {
  const taken = preferenceOf(plan);
  const large = useCuts(page, withPreference(plan, "largest-rest"), layout).full;
  const few = useCuts(page, withPreference(plan, "few-settings"), layout).full;
  const isSame = large.data && few.data && JSON.stringify(countsOf(large.data)) === JSON.stringify(countsOf(few.data));
  return (
    <Sheet
      title="Two plans side by side"
      about="Both cut the same pieces. Sheets that are begun are in both as they are."
      width="whole"
      onClose={onClose}
    >
      <div className="mt-3 grid gap-6 min-[800px]:grid-cols-2">
        {WAYS.map((way) => (
          <OnePlan
            key={way.value}
            {...way}
            isTaken={way.value === taken}
            onTake={onTake && way.value !== taken ? () => onTake(way.value) : undefined}
            full={way.value === "few-settings" ? few : large}
            unit={unit}
            nameOf={nameOf}
            lookOf={lookOf}
            labelOf={labelOf}
          />
        ))}
      </div>
      {isSame && <p className="mt-3">Both come to the same on this page: there is nothing to choose.</p>}
      <CloseSheet className="mt-4" />
    </Sheet>
  );
}

type OneProps = Pick<Props, "unit" | "nameOf" | "lookOf" | "labelOf"> & {
  full: ReturnType<typeof useCuts>["full"];
  title: string;
  about: string;
  isTaken: boolean;
  onTake: (() => void) | undefined;
};

function OnePlan({ title, about, isTaken, onTake, full, ...drawing }: OneProps) {
  return (
    <section aria-label={title} className="grid content-start gap-2">
      <div className="flex min-h-9 flex-wrap items-baseline justify-between gap-2">
        <h3>{title}</h3>
        {isTaken && <span className="text-[13px] text-second">the plan you have</span>}
        {onTake && (
          <button type="button" className="button px-2 py-0.5" onClick={onTake}>
            Take this plan<span className="sr-only">: {title}</span>
          </button>
        )}
      </div>
      <p className="text-[13px] text-second">{about}</p>
      {full.isError && <Failed error={full.error} onRetry={() => full.refetch()} />}
      {full.isPending && <Notice>Planning the cuts…</Notice>}
      {full.data && <Counts cuts={full.data} {...drawing} />}
    </section>
  );
}

type CountsProps = Pick<Props, "unit" | "nameOf" | "lookOf" | "labelOf"> & { cuts: PageCutsDoc };

function Counts({ cuts, unit, nameOf, lookOf, labelOf }: CountsProps) {
  const { opened, settings, rest, short } = countsOf(cuts);
  const longest = Math.max(1, ...cuts.sheets.map((s) => Math.max(s.w, s.h)));
  return (
    <>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        <dt className="text-second">sheets opened</dt>
        <dd className="num">{opened}</dd>
        <dt className="text-second">settings of the trimmer</dt>
        <dd className="num">{settings}</dd>
        <dt className="text-second">largest piece left</dt>
        <dd className="num">
          {rest ? (
            <>
              <Length value={rest.w} unit={unit} /> × <Length value={rest.h} unit={unit} withUnit />
            </>
          ) : (
            "none"
          )}
        </dd>
        {short > 0 && (
          <>
            <dt className="text-measure">short</dt>
            <dd className="num text-measure">{short}</dd>
          </>
        )}
      </dl>
      <ul className="flex flex-wrap items-end gap-2">
        {cuts.sheets
          .filter((s) => s.cuts.length > 0)
          .map((s) => (
            <li key={`${s.item}-${s.copy}`} className="grid justify-items-center text-[13px]">
              <SheetDrawing
                sheet={s}
                look={lookOf(s)}
                labelOf={labelOf}
                unit={unit}
                scale={110 / longest}
                small
                name={nameOf(s)}
              />
              <span className="max-w-[120px] truncate">{nameOf(s)}</span>
            </li>
          ))}
      </ul>
    </>
  );
}
