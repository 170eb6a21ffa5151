import { byNumber, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { type PlanState, type Step, steps } from "./planState";

type Props = {
  state: PlanState;
  station: string;
  onUndo: () => void;
  onRedo: () => void;
  mayChange: boolean;
  onHistory: () => void;
};

const SAYS: Record<PlanState["status"], string> = {
  saved: "Saved",
  waiting: "Saving…",
  saving: "Saving…",
  offline: "Not saved yet: no connection. Kept here, and tried again.",
  conflict: "Not saved: somebody else changed this page.",
  refused: "Not saved.",
};

/** What waits for the connection, the newest last. */
function Waiting({ state }: { state: PlanState }) {
  const numbers = useBlockNumbers();
  const says = (step: Step) =>
    step.kind === "write"
      ? byNumber(step.reason, numbers)
      : step.kind === "return"
        ? `return to version ${step.to}`
        : step.kind;
  return (
    <p className="text-second">
      Waiting: {state.queue.slice(-5).map(says).join(", ")}
      {state.queue.length > 5 && ` and ${state.queue.length - 5} before`}.
    </p>
  );
}

/** Whether all is saved; undo and redo of what was done at this station; the history. */
export function SaveState({ state, station, onUndo, onRedo, mayChange, onHistory }: Props) {
  const numbers = useBlockNumbers();
  const saved = state.status === "saved";
  const { undo, redo } = steps(state, station);
  return (
    <div className="grid gap-1">
      <div className="flex flex-wrap items-center justify-end gap-x-3 gap-y-1">
        <p
          role="status"
          data-save={state.status}
          className={saved || state.status.startsWith("sav") ? "text-second" : "font-bold"}
        >
          {mayChange ? SAYS[state.status] : "To look at"}
          {saved && mayChange && ` as version ${state.page.revision}`}
        </p>
        <span className="flex gap-1.5">
          <button
            type="button"
            className="button"
            disabled={!undo || !mayChange}
            title={undo ? `Undo: ${byNumber(undo, numbers)}` : undefined}
            onClick={onUndo}
          >
            Undo
          </button>
          <button
            type="button"
            className="button"
            disabled={!redo || !mayChange}
            title={redo ? `Redo: ${byNumber(redo, numbers)}` : undefined}
            onClick={onRedo}
          >
            Redo
          </button>
          <button type="button" className="button" onClick={onHistory}>
            History
          </button>
        </span>
      </div>
      {state.status === "offline" && <Waiting state={state} />}
      {state.notTaken && (
        <p role="status" className="text-second">
          {state.notTaken}
        </p>
      )}
      {state.unkept && (
        <p role="alert" className="font-bold text-measure">
          This browser has no room to keep what waits. Stay on this page until it says Saved.
        </p>
      )}
      {state.refusal && state.status === "refused" && (
        <p role="alert" className="text-measure">
          {state.refusal}
        </p>
      )}
    </div>
  );
}
