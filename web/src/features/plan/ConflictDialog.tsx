import { newKey, type PlanDoc } from "@/api/client";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { Sheet } from "@/shared/ui/Sheet";
import { type PlanEvent, type PlanState, shownPlan } from "./planState";
import { fitOf } from "./sections";

/** Two people changed one page: she sees both, and chooses. Either way both are in the page's history. */
export function ConflictDialog({ state, dispatch }: { state: PlanState; dispatch: (event: PlanEvent) => void }) {
  const { newest } = state;
  const open = state.status === "conflict" && newest !== undefined;
  if (!open) return null;
  return (
    <Sheet
      title="This page was changed meanwhile"
      width="wide"
      about={`${newest.author} saved version ${newest.revision} (“${newest.reason}”) while you worked from version ${state.base}. Whichever you choose, the other stays in the history.`}
    >
      <div className="mt-3 grid grid-cols-2 gap-4">
        <Side title="Yours" plan={shownPlan(state)} />
        <Side title={`${newest.author}’s, version ${newest.revision}`} plan={newest.plan} />
      </div>
      <div className="mt-4 flex gap-2">
        <button
          type="button"
          className="button button-first"
          onClick={() => dispatch({ type: "keepMine", key: newKey() })}
        >
          Keep mine
        </button>
        <button
          type="button"
          className="button"
          onClick={() => dispatch({ type: "takeTheirs", keys: [newKey(), newKey()] })}
        >
          Take version {newest.revision}
        </button>
      </div>
    </Sheet>
  );
}

function Side({ title, plan }: { title: string; plan: PlanDoc }) {
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const made = chosenWay(fit, answer.data?.proposals ?? []);
  const shown = made?.layout ?? plan.sketch.sketch;
  return (
    <figure>
      <figcaption className="mb-1 font-semibold">{title}</figcaption>
      <Thumbnail canvas={shown.canvas} blocks={shown.blocks} width={290} height={200} label={title} />
      {answer.data?.conflict && <p className="text-second">Its pins can't hold together.</p>}
    </figure>
  );
}
