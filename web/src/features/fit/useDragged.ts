import { useCallback, useRef, useState } from "react";
import { api, type FitDoc, type ProposalDoc } from "@/api/client";
import { fromTicks, toTicks } from "@/shared/lengths/length";
import { withHeldAt } from "./holding";
import { unitOf, withApproach } from "./model";

/** A place under the hand: where the block's left and top edges are wanted. */
type Wanted = { block: string; left: number; top: number };

type Dragged = { proposal: ProposalDoc; at: Wanted };

/** A block that follows a hand: each step is one solve with the page's choices held. One is under way at a time, the newest place waits,
 * and an answer that comes after the hand let go is dropped. */
export function useDragged(fit: FitDoc, shown: ProposalDoc | undefined, change: (fit: FitDoc, reason: string) => void) {
  const [dragged, setDragged] = useState<Dragged>();
  const run = useRef({
    turn: 0,
    busy: false,
    next: undefined as Wanted | undefined,
    last: undefined as Wanted | undefined,
  });

  const solve = useCallback(
    async (at: Wanted) => {
      const mine = run.current;
      if (!shown) return;
      if (mine.busy) {
        mine.next = at;
        return;
      }
      const turn = mine.turn;
      mine.busy = true;
      try {
        const held = withHeldAt(withApproach(fit, shown), at.block, at.left, at.top);
        const answer = await api.refit({ fit: held, choices: shown.choices });
        const proposal = answer.proposals[0];
        // Where it can't go, the page stays as it last could be.
        if (proposal && turn === mine.turn) {
          mine.last = at;
          setDragged({ proposal, at });
        }
      } catch {
        // A step that got lost is nothing: the next one says it all again.
      } finally {
        mine.busy = false;
        const next = mine.next;
        mine.next = undefined;
        if (next && turn === mine.turn) void solve(next);
      }
    },
    [fit, shown],
  );

  const move = useCallback(
    (block: string, left: number, top: number) => {
      const unit = unitOf(fit);
      const step = Math.max(1, toTicks(fit.snap ?? 0, unit));
      const on = (v: number) => fromTicks(Math.round(toTicks(v, unit) / step) * step, unit);
      void solve({ block, left: on(left), top: on(top) });
    },
    [fit, solve],
  );

  const drop = useCallback(() => {
    const mine = run.current;
    mine.turn += 1;
    mine.next = undefined;
    const last = mine.last;
    mine.last = undefined;
    setDragged(undefined);
    if (last) change(withHeldAt(fit, last.block, last.left, last.top), `${last.block} dragged`);
  }, [fit, change]);

  return { dragged, move, drop };
}
