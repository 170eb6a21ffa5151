import type { PlanDoc } from "@/api/client";
import { checkName } from "./model";

type Props = {
  plan: PlanDoc;
  /** What she never wants, on any page. */
  never: readonly string[];
  mayChange: boolean;
  onOn: (what: string) => void;
  onOnAgain: (what: string) => void;
};

/** Checks that she doesn't want, on this page or on any, each with the way to have it again. */
export function SwitchedOff({ plan, never, mayChange, onOn, onOnAgain }: Props) {
  const off = plan.clusters?.off ?? [];
  if (off.length + never.length === 0) return null;
  return (
    <section aria-labelledby="switched-off" className="grid gap-1 text-[13px]">
      <h2 id="switched-off" className="text-[15px]">
        Not looked for
      </h2>
      <ul className="flex flex-wrap gap-2">
        {never.map((what) => (
          <li key={`never-${what}`}>
            <button
              type="button"
              className="button px-2 py-0.5"
              aria-label={`Look for ${checkName(what)} again, on every page`}
              onClick={() => onOnAgain(what)}
            >
              Look for {checkName(what)} again, on every page
            </button>
          </li>
        ))}
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
