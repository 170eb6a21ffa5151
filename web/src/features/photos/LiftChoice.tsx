import type { PlacedPhotoDoc, PlacedPhotosDoc, PlanDoc } from "@/api/client";
import { BlockBadge, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { Length } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { Segments } from "@/shared/ui/Segments";
import { type Lift, liftFor, unitOfPlan, withLift, withRoom } from "./model";

type Props = {
  plan: PlanDoc;
  placed: PlacedPhotoDoc;
  outcome: PlacedPhotosDoc;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
};

const LIFTS: readonly { value: Lift; label: string }[] = [
  { value: "flat", label: "flat" },
  { value: "card", label: "card" },
  { value: "thin-foam", label: "thin foam" },
  { value: "thick-foam", label: "thick foam" },
];
const WORD: Record<string, string> = Object.fromEntries(LIFTS.map((l) => [l.value, l.label]));

/** What lifts the photo off the page, and how thick that makes it in its protector. */
export function LiftChoice({ plan, placed, outcome, change, mayChange }: Props) {
  const numbers = useBlockNumbers();
  const unit = unitOfPlan(plan);
  const { thick, room, take_down: down } = outcome.thickness;
  const closed = plan.fit.target.pages === 2 ? "Closed, the spread is" : "The page is";
  const lower = () =>
    change(
      down.reduce((next, d) => withLift(next, d.of, d.by as Lift), plan),
      "photos taken down to fit the protector",
    );
  return (
    <section aria-labelledby="lift" className="grid gap-1.5 border-hairline border-t pt-2.5">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h3 id="lift">Lift</h3>
        <Segments
          label="What lifts it"
          value={liftFor(plan, placed.of)}
          options={LIFTS}
          disabled={!mayChange}
          onChoose={(by) => change(withLift(plan, placed.of, by), `photo on ${WORD[by]}`)}
        />
      </div>
      <div
        className={`flex flex-wrap items-center gap-x-1.5 text-[13px] ${thick > room ? "text-measure" : "text-second"}`}
      >
        <span>
          {closed} <Length value={rounded(thick, unit)} unit={unit} withUnit /> thick at its thickest; room for
        </span>
        <LengthField
          label="room in the protector"
          hideLabel
          value={room}
          unit={unit}
          least={1 / 64}
          most={4}
          width="3.6rem"
          onCommit={(v) => change(withRoom(plan, v), "room in the protector")}
        />
      </div>
      {thick > room &&
        (down.length > 0 ? (
          <div className="text-[13px]">
            <p>
              Take down{" "}
              {down.map((d, n) => (
                <span key={d.of}>
                  {n > 0 && " and "}
                  <BlockBadge number={numbers.get(d.of) ?? d.of} /> to {WORD[d.by]}
                </span>
              ))}
              , and it fits.
            </p>
            <button type="button" className="button mt-1 px-2 py-0.5" disabled={!mayChange} onClick={lower}>
              Take them down
            </button>
          </div>
        ) : (
          <p className="text-[13px]">
            Laid flat it would still be too thick: fewer layers there, or a roomier protector.
          </p>
        ))}
    </section>
  );
}

/** A thickness is said by 1/32 in or half a millimetre, upwards. */
function rounded(thick: number, unit: "in" | "mm"): number {
  const step = unit === "in" ? 1 / 32 : 0.5;
  return Math.ceil(thick / step - 1e-6) * step;
}
