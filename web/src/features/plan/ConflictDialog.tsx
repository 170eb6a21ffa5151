import { Dialog } from "radix-ui";
import { newKey, type PlanDoc } from "@/api/client";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { type PlanEvent, type PlanState, shownPlan } from "./planState";
import { fitOf } from "./sections";

/** Two people changed one page: she sees both, and chooses. Either way both are in the page's history. */
export function ConflictDialog({ state, dispatch }: { state: PlanState; dispatch: (event: PlanEvent) => void }) {
  const { newest } = state;
  const open = state.status === "conflict" && newest !== undefined;
  return (
    <Dialog.Root open={open}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content className="sheet fixed top-1/2 left-1/2 z-20 w-[42rem] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 p-5">
          <Dialog.Title className="text-[17px]">This page was changed meanwhile</Dialog.Title>
          <Dialog.Description className="mt-2">
            {newest?.author} saved version {newest?.revision} (“{newest?.reason}”) while you worked from version{" "}
            {state.base}. Whichever you choose, the other stays in the history.
          </Dialog.Description>
          {open && newest && (
            <div className="mt-3 grid grid-cols-2 gap-4">
              <Side title="Yours" plan={shownPlan(state)} />
              <Side title={`${newest.author}’s, version ${newest.revision}`} plan={newest.plan} />
            </div>
          )}
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
              Take version {newest?.revision}
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
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
