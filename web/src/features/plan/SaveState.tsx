import { newKey } from "@/api/client";
import { type PlanEvent, type PlanState, steps } from "./planState";

type Props = { state: PlanState; dispatch: (event: PlanEvent) => void; mayChange: boolean; onHistory: () => void };

const SAYS: Record<PlanState["status"], string> = {
  saved: "Saved",
  waiting: "Saving…",
  saving: "Saving…",
  offline: "Not saved yet: no connection. Kept here, and tried again.",
  conflict: "Not saved: somebody else changed this page.",
  refused: "Not saved.",
};

/** Whether all is saved; undo, redo and the history. */
export function SaveState({ state, dispatch, mayChange, onHistory }: Props) {
  const saved = state.status === "saved";
  const { undo, redo } = steps(state);
  return (
    <div className="grid gap-1.5">
      <div className="flex flex-wrap items-center gap-2">
        <p
          role="status"
          data-save={state.status}
          className={saved || state.status.startsWith("sav") ? "text-second" : "font-bold"}
        >
          {mayChange ? SAYS[state.status] : "To look at"}
          {saved && mayChange && ` as version ${state.page.revision}`}
        </p>
        <span className="ml-auto flex gap-1.5">
          <button
            type="button"
            className="button"
            disabled={!undo || !mayChange}
            title={undo ? `Undo: ${undo}` : undefined}
            onClick={() => dispatch({ type: "undo", key: newKey() })}
          >
            Undo
          </button>
          <button
            type="button"
            className="button"
            disabled={!redo || !mayChange}
            title={redo ? `Redo: ${redo}` : undefined}
            onClick={() => dispatch({ type: "redo", key: newKey() })}
          >
            Redo
          </button>
          <button type="button" className="button" onClick={onHistory}>
            History
          </button>
        </span>
      </div>
      {state.queue.length > 1 && state.status === "offline" && (
        <p className="text-second">{state.queue.length} steps wait.</p>
      )}
      {state.refusal && state.status === "refused" && (
        <p role="alert" className="text-measure">
          {state.refusal}
        </p>
      )}
    </div>
  );
}
