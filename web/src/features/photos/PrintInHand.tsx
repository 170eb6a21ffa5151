import type { PlacedPhotoDoc, PlacedPhotosDoc, PlanDoc, PrintDoc } from "@/api/client";
import { BlockBadge, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { Length, Sentence } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { Areas } from "./Areas";
import { CropView } from "./CropView";
import { LiftChoice } from "./LiftChoice";
import { Mats } from "./Mats";
import { offOf, unitOfPlan, withOff, withZoom } from "./model";
import { PrintDetails } from "./PrintDetails";

type Props = {
  plan: PlanDoc;
  print: PrintDoc | undefined;
  placed: PlacedPhotoDoc | undefined;
  outcome: PlacedPhotosDoc | undefined;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
};

/** The print in hand: its window, mats and lift, and what it is. */
export function PrintInHand({ plan, print, placed, outcome, change, mayChange }: Props) {
  const numbers = useBlockNumbers();
  const unit = unitOfPlan(plan);
  if (!print) {
    return (
      <div className="sheet text-second">
        Take a print in hand to crop, mat and lift it. Bring pictures in below the page, or list the prints that you
        have.
      </div>
    );
  }
  const wayUp = print.w > print.h ? "level" : print.w < print.h ? "upright" : "square";
  return (
    <div className="sheet grid grid-cols-[minmax(0,1fr)] gap-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h2 id="print-in-hand" className="text-[17px]">
          {placed ? (
            <>
              Photo <BlockBadge number={numbers.get(placed.block) ?? placed.block} on />, print {print.id}
            </>
          ) : (
            `Print ${print.id}, no place`
          )}
        </h2>
        <span className="text-[13px] text-second">
          <Length value={print.w} unit={unit} /> × <Length value={print.h} unit={unit} /> {wayUp},{" "}
          {print.file ? "a file" : "on paper"}
        </span>
      </div>
      <CropView plan={plan} print={print} placed={placed} change={change} mayChange={mayChange} />
      {placed && <Offs plan={plan} print={print} placed={placed} change={change} />}
      {placed?.told && (
        <p className="text-[13px]">
          <Sentence text={placed.told} />
        </p>
      )}
      {placed && <Dots placed={placed} unit={unit} />}
      <Areas plan={plan} print={print} placed={placed} change={change} mayChange={mayChange} />
      {placed && <Mats plan={plan} placed={placed} change={change} mayChange={mayChange} />}
      {placed && outcome && (
        <LiftChoice plan={plan} placed={placed} outcome={outcome} change={change} mayChange={mayChange} />
      )}
      <PrintDetails plan={plan} print={print} placed={placed} change={change} mayChange={mayChange} />
    </div>
  );
}

const SIDES = ["top", "bottom", "left", "right"] as const;

/** What is off each side, and what that leaves. */
function Offs({
  plan,
  print,
  placed,
  change,
}: Pick<Props, "plan" | "change"> & { print: PrintDoc; placed: PlacedPhotoDoc }) {
  const unit = unitOfPlan(plan);
  const off = offOf(placed);
  const zoom = print.crop?.zoom ?? 1;
  return (
    <div className="grid gap-2 border-hairline border-t pt-2">
      <div className="grid grid-cols-[repeat(4,minmax(0,1fr))_auto] items-end gap-1.5 [&_input]:px-1 [&_input]:text-[13px]">
        {SIDES.map((side) => (
          <div key={side} className="grid gap-0.5 text-right">
            <span aria-hidden className="text-[13px] text-second">
              {side}
            </span>
            <LengthField
              label={`off the ${side}`}
              hideLabel
              value={off[side]}
              unit={unit}
              most={40}
              width="100%"
              onCommit={(v) => change(withOff(plan, placed, side, v), `print ${print.id}: window moved`)}
            />
          </div>
        ))}
        <div className="grid gap-0.5 text-right">
          <span className="text-[13px] text-second">leaves</span>
          <span className="py-1 font-bold">
            <Length value={placed.slot.w} unit={unit} /> × <Length value={placed.slot.h} unit={unit} />
          </span>
        </div>
      </div>
      {print.file && (
        <label className="flex items-center gap-2 text-[13px] text-second">
          nearer
          <input
            type="range"
            className="h-6 flex-1 accent-ink pointer-coarse:h-11"
            min={1}
            max={4}
            step={0.05}
            value={zoom}
            onChange={(e) => change(withZoom(plan, placed, Number(e.target.value)), `print ${print.id} seen nearer`)}
          />
          <span className="w-[44px] text-right">{Math.round(zoom * 100)} %</span>
        </label>
      )}
    </div>
  );
}

/** How well a file prints at this size, said where it is not good. */
function Dots({ placed, unit }: { placed: PlacedPhotoDoc; unit: "in" | "mm" }) {
  if (!placed.quality || !placed.dots || placed.quality === "good" || !placed.largest_good) return null;
  const coarse = placed.quality === "coarse";
  return (
    <p className={`text-[13px] ${coarse ? "text-measure" : "text-second"}`}>
      {Math.round(placed.dots)} dots an inch at this size: {coarse ? "dots will show" : "good at arm's length"}. It
      prints well up to <Length value={placed.largest_good.w} unit={unit} /> ×{" "}
      <Length value={placed.largest_good.h} unit={unit} withUnit />.
    </p>
  );
}
