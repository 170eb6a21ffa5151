import { useDeferredValue, useState } from "react";
import type { StashItemView } from "@/api/client";
import { useStash } from "@/features/stash/useStash";
import { Failed } from "@/shared/ui/Failed";
import { PieceInList, pieceLook } from "./Pieces";

type Props = {
  page: string;
  unit: string;
  /** How many of each this page's clusters take already. */
  taken: ReadonlyMap<string, number>;
  into: string | undefined;
  onTake: ((thing: StashItemView) => void) | undefined;
};

/** How many of a thing are left for this page. */
export function leftOf(thing: StashItemView, page: string, taken: number): number {
  const elsewhere = thing.holds.filter((h) => h.page !== page).reduce((sum, h) => sum + h.held, 0);
  return Math.max(0, thing.item.count - elsewhere - taken);
}

/** Pieces of the stash, ready to be laid into a cluster. */
export function Ready({ page, unit, taken, into, onTake }: Props) {
  const [search, setSearch] = useState("");
  const stash = useStash(useDeferredValue(search.trim()), unit);
  const things = (stash.items ?? []).filter((t) => t.item.kind === "embellishment");
  return (
    <section aria-labelledby="ready" className="grid gap-2">
      <h2 id="ready" className="text-[17px]">
        Ready from the stash
      </h2>
      <p className="text-[13px] text-second">
        {into ? `A click lays one into cluster ${into}.` : "No cluster to lay them into."}
      </p>
      {stash.isError && <Failed error={stash.error} onRetry={() => stash.refetch()} />}
      <ul className="grid grid-cols-3 gap-1.5">
        {things.map((thing) => {
          const left = leftOf(thing, page, taken.get(thing.id) ?? 0);
          const { size } = thing.item;
          return (
            <li key={thing.id} className="text-center text-[12px] leading-tight">
              <button
                type="button"
                className="grid w-full justify-items-center gap-0.5 rounded-[3px] p-0.5 enabled:hover:bg-tray disabled:opacity-60"
                disabled={!onTake || left === 0}
                onClick={() => onTake?.(thing)}
              >
                <PieceInList
                  look={pieceLook(new Map([[thing.id, thing]]), thing.id)}
                  w={size?.w ?? 0.75}
                  h={size?.h ?? 0.75}
                  unit={thing.item.unit}
                  perInch={28}
                />
                <span>{thing.item.name}</span>
                <span className="text-second tabular-nums">{left} left</span>
              </button>
            </li>
          );
        })}
      </ul>
      {stash.data && things.length === 0 && <p className="text-second">No piece in the stash is like that.</p>}
      <input
        type="search"
        aria-label="Find a piece, or a colour"
        placeholder="find a piece, or a colour"
        className="field w-full px-2 py-1"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
    </section>
  );
}
