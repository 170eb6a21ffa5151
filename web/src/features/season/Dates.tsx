import { type CallDoc, zoneHere } from "@/api/client";
import { isoDay } from "@/shared/ui/days";
import { hourText, inDays, longDay, momentHere } from "./words";

/** The moments of hours that are told by another clock, in UTC. */
type Moments = { due_at?: string | null; prize_at?: string | null };

type Props = {
  call: CallDoc;
  moments?: Moments;
  /** A page's own day, where it is not the call's: its place in a hop. */
  own?: string | null | undefined;
};

/** A call's days, with their hours and whose clock tells them. */
export function Dates({ call, moments = {}, own }: Props) {
  const today = new Date();
  const rows = [
    { label: "this page", day: own === call.due ? undefined : own, time: undefined, at: undefined },
    { label: "with them by", day: call.due, time: call.due_time, at: moments.due_at },
    { label: "shown to all", day: call.shown, time: undefined, at: undefined },
    { label: "prize closes", day: call.prize, time: call.prize_time, at: moments.prize_at },
  ].filter((r) => r.day);
  return (
    <section aria-labelledby="dates">
      <h2 id="dates">Dates</h2>
      {rows.length === 0 && <p className="text-second">No day is set.</p>}
      <dl>
        {rows.map(({ label, day, time, at }) => (
          <div key={label} className="flex justify-between gap-2 border-hairline border-t py-1">
            <dt className="text-second">{label}</dt>
            <dd className="text-right font-semibold">
              {longDay(day ?? "")}
              {time && (
                <span className="block font-normal">
                  {hourText(time)}
                  {call.zone ? `, ${placeOf(call.zone)}` : ""}
                </span>
              )}
              {at && call.zone !== zoneHere() && (
                <span className="block font-normal text-second">by your clock {momentHere(at)}</span>
              )}
              {(label === "with them by" || label === "this page") && day && (
                <span className={day < isoDay(today) ? "block text-measure" : "block font-normal text-second"}>
                  {inDays(day, today)}
                </span>
              )}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** A time zone as people name it: “Lisbon time” of Europe/Lisbon. */
function placeOf(zone: string): string {
  const place = zone.split("/").at(-1)?.replaceAll("_", " ");
  return zone.includes("/") ? `${place} time` : zone;
}
