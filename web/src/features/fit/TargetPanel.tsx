import { ToggleGroup } from "radix-ui";
import type { FitDoc } from "@/api/client";
import { LengthField } from "@/shared/ui/LengthField";
import { gapsOf, slackValue, withAcrossFold, withSlack } from "./holding";
import {
  MOST_PHOTOS,
  PAGE_SIZES,
  photoCount,
  STEPS,
  sizeName,
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
  const { page, pages } = fit.target;
  const own = (w: number, h: number) => change(withSize(fit, { unit, w, h }), "another page size");
  return (
    <section aria-labelledby="target">
      <h2 id="target" className="mb-1.5">
        Target
      </h2>
      <div className="grid gap-2">
        <div className="flex flex-wrap items-center gap-2">
          <ToggleGroup.Root
            type="single"
            value={String(pages)}
            aria-label="How many pages"
            className="flex gap-1.5"
            onValueChange={(v) => v && change(withPages(fit, Number(v)), v === "2" ? "two pages" : "one page")}
          >
            <ToggleGroup.Item value="1" className="button">
              One page
            </ToggleGroup.Item>
            <ToggleGroup.Item value="2" className="button">
              Two pages
            </ToggleGroup.Item>
          </ToggleGroup.Root>
        </div>
        <div className="flex flex-wrap items-center gap-1.5">
          <select
            aria-label="Page size"
            className="field w-[124px] py-1"
            value={sizeName(fit)}
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
            <option value="own" disabled={sizeName(fit) !== "own"}>
              own size
            </option>
          </select>
          <LengthField
            label="page width"
            hideLabel
            value={page.w}
            unit={unit}
            least={2}
            most={40}
            width="4.2rem"
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
            width="4.2rem"
            onCommit={(h) => own(page.w, h)}
          />
          <span className="text-second">{unit}</span>
        </div>
        <div className="flex flex-wrap items-center gap-2">
          <span className="text-second">photos</span>
          {listed ? (
            <output aria-label="Photos" className="font-bold">
              {photos.count}
            </output>
          ) : (
            <PhotoCount fit={fit} change={change} />
          )}
          <span className="text-[13px] text-second">
            {photos.count === photos.drawn ? "as drawn" : `${photos.drawn} drawn`}
          </span>
        </div>
        <PrintsPanel fit={fit} change={change} />
        <div className="flex flex-wrap items-center gap-3">
          <LengthField
            label="margin"
            value={fit.target.margin ?? 0}
            unit={unit}
            most={3}
            width="3.6rem"
            onCommit={(v) => change(withRoom(fit, "margin", v), "another margin")}
          />
          {pages === 2 && (
            <LengthField
              label="fold guard"
              value={fit.target.fold_guard ?? 0}
              unit={unit}
              most={3}
              width="3.6rem"
              onCommit={(v) => change(withRoom(fit, "fold_guard", v), "another fold guard")}
            />
          )}
          <label className="ml-auto flex items-center gap-1.5 text-second">
            ruler
            <select
              className="field py-1 text-ink"
              value={String(fit.snap ?? 0)}
              onChange={(e) => change(withStep(fit, Number(e.target.value)), "another ruler step")}
            >
              {STEPS[unit].map((s) => (
                <option key={s.label} value={String(s.value)}>
                  {s.label}
                </option>
              ))}
            </select>
          </label>
        </div>
        <label className="flex min-w-0 items-center gap-1.5 text-second">
          room left over
          <select
            className="field min-w-0 flex-1 py-1 text-ink"
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
        </label>
        {pages === 2 && (
          <fieldset className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <legend className="float-left mr-2 text-second">may cross the fold</legend>
            {[...(fit.across_fold?.includes("title") ? [TITLES] : []), ...ACROSS].map((kind) => (
              <label key={kind.value} className="flex items-center gap-1">
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
            <span className="text-second">a title: between words, at its own numbers below</span>
          </fieldset>
        )}
      </div>
    </section>
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
        aria-label="One photo less"
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
        disabled={photos.count >= MOST_PHOTOS || photos.drawn === 0}
        onClick={() => change(withPhotos(fit, photos.count + 1), `${photos.count + 1} photos`)}
      >
        +
      </button>
    </>
  );
}
