import type { PlanDoc } from "@/api/client";
import { checkName } from "./model";

type Props = { plan: PlanDoc; mayChange: boolean; onOn: (what: string) => void };

/** Checks that she doesn't want on this page, each with the way to have it again. */
export function SwitchedOff({ plan, mayChange, onOn }: Props) {
  const off = plan.clusters?.off ?? [];
  if (off.length === 0) return null;
  return (
    <section aria-labelledby="switched-off" className="grid gap-1 text-[13px]">
      <h2 id="switched-off" className="text-[15px]">
        Not looked for on this page
      </h2>
      <ul className="flex flex-wrap gap-2">
        {off.map((what) => (
          <li key={what}>
            <button
              type="button"
              className="button px-2 py-0.5"
              disabled={!mayChange}
              aria-label={`Look for ${checkName(what)} again`}
              onClick={() => onOn(what)}
            >
              Look for {checkName(what)} again
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
