import { useState } from "react";
import type { PlanDoc, ScatterDoc, StashItemView } from "@/api/client";
import { useStash } from "@/features/stash/useStash";
import { leftOf } from "./Ready";

const WAYS: readonly (readonly [string, string])[] = [
  ["from-clusters", "round the clusters"],
  ["diagonal", "along a diagonal"],
  ["triangle", "in a triangle"],
];
/** Larger than this, in square inches, nothing is strewn. */
const SMALL = 0.3;

type Props = {
  page: string;
  plan: PlanDoc;
  /** How many found room. */
  lying: number;
  onStrew: (scatter: ScatterDoc | null, reason: string) => void;
};

/** Dots, sequins or stars strewn over the page, away from faces and words. */
export function Strewn({ page, plan, lying, onStrew }: Props) {
  const stash = useStash("", plan.unit).items ?? [];
  const inches = (t: StashItemView) => {
    const by = t.item.unit === "mm" ? 25.4 : 1;
    return ((t.item.size?.w ?? 9) / by) * ((t.item.size?.h ?? 9) / by);
  };
  const small = stash.filter((t) => t.item.kind === "embellishment" && inches(t) <= SMALL);
  const now = plan.clusters?.scatter;
  const [item, setItem] = useState(now?.item ?? "");
  const [count, setCount] = useState(String(now?.count ?? 15));
  const thing = small.find((t) => t.id === (item || small[0]?.id));
  const left = thing ? leftOf(thing, page, 0) : 0;
  const typed = Number(count);
  const wrong = !Number.isInteger(typed) || typed < 1 || typed > Math.min(400, left);
  if (small.length === 0) return null;
  const strewn = (change: Partial<ScatterDoc>) =>
    thing && { item: thing.id, count: typed, way: now?.way ?? "from-clusters", seed: now?.seed ?? 0, ...change };
  return (
    <section aria-labelledby="strewn" className="grid gap-1.5 text-[13px]">
      <h2 id="strewn" className="text-[15px]">
        Strewn over the page
      </h2>
      <div className="flex flex-wrap items-center gap-1.5">
        <input
          aria-label="How many"
          className="field w-12 px-1.5 py-0.5 text-right tabular-nums"
          inputMode="numeric"
          value={count}
          onChange={(e) => setCount(e.target.value)}
        />
        <select
          aria-label="What is strewn"
          className="field px-1.5 py-0.5"
          value={thing?.id}
          onChange={(e) => setItem(e.target.value)}
        >
          {small.map((t) => (
            <option key={t.id} value={t.id}>
              {t.item.name}
            </option>
          ))}
        </select>
        <select
          aria-label="Where it is strewn"
          className="field px-1.5 py-0.5"
          value={now?.way ?? "from-clusters"}
          onChange={(e) => {
            const next = strewn({ way: e.target.value });
            if (next && !wrong) onStrew(next, "strewn another way");
          }}
        >
          {WAYS.map(([way, said]) => (
            <option key={way} value={way}>
              {said}
            </option>
          ))}
        </select>
      </div>
      {wrong && (
        <p role="alert" className="text-measure">
          “{count}” can't be strewn: 1 to {Math.min(400, left)}, as many as are left.
        </p>
      )}
      {now && lying < now.count && (
        <p>
          {lying} of {now.count} found room.
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        <button
          type="button"
          className="button px-2 py-0.5"
          disabled={wrong}
          onClick={() => {
            const next = strewn({ seed: now ? (now.seed ?? 0) + 1 : 0 });
            if (next) onStrew(next, now ? "strewn another way" : "small things strewn");
          }}
        >
          {now ? "Strew them anew" : "Strew them"}
        </button>
        {now && (
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => onStrew(null, "strewn things taken away")}
          >
            Take them away
          </button>
        )}
      </div>
    </section>
  );
}
