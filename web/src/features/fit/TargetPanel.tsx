import { ToggleGroup } from "radix-ui";
import type { FitDoc } from "@/api/client";
import { LengthField } from "@/shared/ui/LengthField";
import { gapsOf, slackValue, withAcrossFold, withSlack } from "./holding";
import {
  hasAside,
  MOST_PHOTOS,
  PAGE_SIZES,
  photoCount,
  STEPS,
  unitOf,
  withPages,
  withPhotos,
  withRoom,
  withSize,
  withStep,
} from "./model";
import { PrintsPanel } from "./PrintsPanel";

const SLACKS = [
  { value: "best", label: "where it fits best" },
  { value: "between", label: "between, all gaps alike" },
  { value: "outside", label: "outside, gaps as drawn" },
  { value: "ends", label: "above and below" },
  { value: "mats", label: "into the mats" },
];

/** Titles are let across one by one, with their words; a kind that is let across as a whole can be taken back. */
const TITLES = { value: "title", label: "titles" };
const ACROSS = [
  { value: "journal", label: "writing" },
  { value: "photo", label: "photos" },
];

type Props = { fit: FitDoc; change: (fit: FitDoc, reason: string) => void };

/** Which page, one or two, how many photos, on which ruler. */
export function TargetPanel({ fit, change }: Props) {
  const unit = unitOf(fit);
  const photos = photoCount(fit);
  const listed = Array.isArray(fit.photos);
  const { pages } = fit.target;
  return (
    <section aria-labelledby="target">
      <h2 id="target" className="mb-2">
        The page it must fit
      </h2>
      <div className="grid grid-cols-[92px_minmax(0,1fr)] items-center gap-x-2.5 gap-y-2">
        <span className="text-second">pages</span>
        <ToggleGroup.Root
          type="single"
          value={String(pages)}
          aria-label="How many pages"
          className="flex"
          onValueChange={(v) => v && change(withPages(fit, Number(v)), v === "2" ? "two pages" : "one page")}
        >
          <ToggleGroup.Item value="1" aria-label="One page" className="button rounded-r-none">
            one
          </ToggleGroup.Item>
          <ToggleGroup.Item value="2" aria-label="Two pages" className="button -ml-px rounded-l-none">
            two
          </ToggleGroup.Item>
        </ToggleGroup.Root>
        <span className="text-second">page size</span>
        <PageSize fit={fit} change={change} />
        <span className="text-second">photos</span>
        <span className="flex flex-wrap items-center gap-2">
          <PhotoCount fit={fit} change={change} />
          <span className="text-[13px] text-second">
            {photos.count === photos.drawn ? "as in the sketch" : `${photos.drawn} in the sketch`}
          </span>
        </span>
        <span className={listed ? "col-span-full" : "col-start-2"}>
          <PrintsPanel fit={fit} change={change} />
        </span>
        <LengthField
          label="margin"
          inRow
          value={fit.target.margin ?? 0}
          unit={unit}
          most={3}
          width="4.2rem"
          after={unit}
          onCommit={(v) => change(withRoom(fit, "margin", v), "another margin")}
        />
        {pages === 2 && (
          <LengthField
            label="fold guard"
            inRow
            value={fit.target.fold_guard ?? 0}
            unit={unit}
            most={3}
            width="4.2rem"
            after={`${unit} on each side`}
            onCommit={(v) => change(withRoom(fit, "fold_guard", v), "another fold guard")}
          />
        )}
        <label htmlFor="ruler-step" className="text-second">
          ruler step
        </label>
        <select
          id="ruler-step"
          className="field justify-self-start py-1"
          value={String(fit.snap ?? 0)}
          onChange={(e) => change(withStep(fit, Number(e.target.value)), "another ruler step")}
        >
          {STEPS[unit].map((s) => (
            <option key={s.label} value={String(s.value)}>
              {s.label}
            </option>
          ))}
        </select>
        <label htmlFor="leftover" className="text-second">
          leftover room
        </label>
        <select
          id="leftover"
          className="field min-w-0 py-1"
          value={slackValue(fit)}
          onChange={(e) => change(withSlack(fit, e.target.value), "where left-over room goes")}
        >
          {SLACKS.map((s) => (
            <option key={s.value} value={s.value}>
              {s.label}
            </option>
          ))}
          {gapsOf(fit).map(([a, b]) => (
            <option key={`${a} ${b}`} value={`gap ${a} ${b}`}>
              into the gap of {a} and {b}
            </option>
          ))}
        </select>
        {pages === 2 && <Across fit={fit} change={change} />}
      </div>
    </section>
  );
}

/** What may cross the fold. */
function Across({ fit, change }: Props) {
  return (
    <>
      <span id="across" className="self-start text-second">
        may cross the fold
      </span>
      {/* biome-ignore lint/a11y/useSemanticElements: a fieldset can't lend its children to the grid around it */}
      <span role="group" aria-labelledby="across" className="flex flex-wrap gap-x-3 gap-y-1">
        {[...(fit.across_fold?.includes("title") ? [TITLES] : []), ...ACROSS].map((kind) => (
          <label key={kind.value} className="flex min-h-[24px] items-center gap-1.5">
            <input
              type="checkbox"
              checked={fit.across_fold?.includes(kind.value) ?? false}
              onChange={(e) =>
                change(
                  withAcrossFold(fit, kind.value, e.target.checked),
                  `${kind.label} ${e.target.checked ? "may" : "may not"} cross the fold`,
                )
              }
            />
            {kind.label}
          </label>
        ))}
        <span className="text-[13px] text-second">a title: between words, at its own numbers below</span>
      </span>
    </>
  );
}

/** Width by height, or one of the usual sizes. */
function PageSize({ fit, change }: Props) {
  const unit = unitOf(fit);
  const { page } = fit.target;
  const own = (w: number, h: number) => change(withSize(fit, { unit, w, h }), "another page size");
  return (
    <span className="flex flex-wrap items-center gap-1.5">
      <LengthField
        label="page width"
        hideLabel
        value={page.w}
        unit={unit}
        least={2}
        most={40}
        width="3.8rem"
        onCommit={(w) => own(w, page.h)}
      />
      ×
      <LengthField
        label="page height"
        hideLabel
        value={page.h}
        unit={unit}
        least={2}
        most={40}
        width="3.8rem"
        onCommit={(h) => own(page.w, h)}
      />
      <span className="text-second">{unit}</span>
      <select
        aria-label="Page size"
        className="field min-w-0 flex-1 py-1"
        value="others"
        onChange={(e) => {
          const size = PAGE_SIZES.find((s) => s.name === e.target.value);
          if (size) change(withSize(fit, size), `page ${size.label}`);
        }}
      >
        {PAGE_SIZES.map((s) => (
          <option key={s.name} value={s.name}>
            {s.label}
          </option>
        ))}
        <option value="others" hidden>
          others
        </option>
      </select>
    </span>
  );
}

/** One photo more or fewer. */
function PhotoCount({ fit, change }: Props) {
  const photos = photoCount(fit);
  return (
    <>
      <button
        type="button"
        className="button"
        aria-label="One photo fewer"
        disabled={photos.count <= 1}
        onClick={() => change(withPhotos(fit, photos.count - 1), `${photos.count - 1} photos`)}
      >
        −
      </button>
      <output aria-label="Photos" className="min-w-[1.6rem] text-center font-bold">
        {photos.count}
      </output>
      <button
        type="button"
        className="button"
        aria-label="One photo more"
        disabled={photos.count >= MOST_PHOTOS || photos.drawn === 0 || (Array.isArray(fit.photos) && !hasAside(fit))}
        onClick={() => change(withPhotos(fit, photos.count + 1), `${photos.count + 1} photos`)}
      >
        +
      </button>
    </>
  );
}
