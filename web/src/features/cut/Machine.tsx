import type { CutOrderView, MachineView } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { Segments } from "@/shared/ui/Segments";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { useMachine } from "./useMachine";

type Props = { page: string; saved: boolean; count: number; onClose: () => void };

/** The sheets that nothing is cut of yet, sent to the cutting machine: how far it is, what stopped it, and how it goes on. */
export function Machine({ page, saved, count, onClose }: Props) {
  const mayChange = useMayChange();
  const machine = useMachine(page);
  const orders = machine.orders.data ?? [];
  return (
    <Sheet
      title="Cutting machine"
      about="Each sheet is laid on the mat with its left top corner at the mark. What is begun at the trimmer stays there."
      width="wide"
      onClose={onClose}
    >
      <div className="mt-3 grid gap-4">
        {machine.machine.data && (
          <TheMachine
            machine={machine.machine.data}
            mayChange={mayChange}
            onSet={(to) => machine.setMachine.mutate(to)}
          />
        )}
        {!saved && <Notice>The page is being saved; its sheets follow.</Notice>}
        <button
          type="button"
          className="button button-first justify-self-start"
          disabled={!mayChange || !saved || count === 0 || machine.send.isPending}
          onClick={() => machine.send.mutate(undefined)}
        >
          {count === 0
            ? "Every sheet is begun already"
            : count === 1
              ? "Send the sheet to the machine"
              : `Send ${count} sheets to the machine`}
        </button>
        {machine.send.error && <Failed error={machine.send.error} />}
        {machine.orders.isError && <Failed error={machine.orders.error} onRetry={() => machine.orders.refetch()} />}
        {orders.length > 0 && (
          <section aria-labelledby="cut-orders" className="grid gap-2">
            <h3 id="cut-orders">Sent to the machine</h3>
            <ol className="grid gap-3">
              {orders.map((order) => (
                <Order
                  key={order.id}
                  order={order}
                  onStop={mayChange ? () => machine.stop.mutate(order) : undefined}
                  onGoOn={mayChange ? () => machine.goOn.mutate(order.id) : undefined}
                />
              ))}
            </ol>
          </section>
        )}
        <p className="text-[13px] text-second">
          Keep fingers, hair and sleeves away from the blade while it runs, and follow the machine maker's instructions.
        </p>
      </div>
      <CloseSheet className="mt-4" />
    </Sheet>
  );
}

/** The simulated machine's mat, and what is the matter with it. */
function TheMachine({
  machine,
  mayChange,
  onSet,
}: {
  machine: MachineView;
  mayChange: boolean;
  onSet: (to: MachineView) => void;
}) {
  const set = (change: Partial<MachineView>) => onSet({ ...machine, ...change });
  return (
    <section aria-labelledby="the-machine" className="grid gap-1.5">
      <h3 id="the-machine">The machine</h3>
      <p className="text-[13px] text-second">A simulated one: it keeps a log of what it cut.</p>
      <div className="flex flex-wrap items-center gap-3">
        <Segments
          label="Its mat"
          value={machine.mat as "12x12" | "12x24"}
          disabled={!mayChange}
          options={[
            { value: "12x12", label: "12 × 12 mat" },
            { value: "12x24", label: "12 × 24 mat" },
          ]}
          onChoose={(mat) => set({ mat })}
        />
        <span role="status">
          {machine.jammed && <strong className="text-measure">paper is jammed </strong>}
          {machine.lost && <strong className="text-measure">it lost its place </strong>}
          {!machine.jammed && !machine.lost && "ready"}
          {machine.trouble !== "none" && (
            <span className="text-second">
              , and will {machine.trouble === "jam" ? "jam" : "lose its place"} after {machine.trouble_after}{" "}
              {machine.trouble_after === 1 ? "line" : "lines"}
            </span>
          )}
        </span>
      </div>
      {mayChange && (
        <div className="flex flex-wrap gap-2 text-[13px]">
          {machine.jammed && (
            <button type="button" className="button px-2 py-0.5" onClick={() => set({ jammed: false })}>
              Take the jam out
            </button>
          )}
          {machine.lost && (
            <button type="button" className="button px-2 py-0.5" onClick={() => set({ lost: false })}>
              The sheet lies at the mark again
            </button>
          )}
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => set({ trouble: "jam", trouble_after: 2 })}
          >
            Jam it after two lines
          </button>
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => set({ trouble: "lost", trouble_after: 1 })}
          >
            Let it lose its place after one line
          </button>
        </div>
      )}
    </section>
  );
}

function Order({
  order,
  onStop,
  onGoOn,
}: {
  order: CutOrderView;
  onStop: (() => void) | undefined;
  onGoOn: (() => void) | undefined;
}) {
  const isUnderWay = order.state === "waiting" || order.state === "running";
  const isDone = order.sheets.every((s) => s.lines > 0 && s.cut === s.lines);
  return (
    <li className="grid gap-1 border-hairline border-t pt-2">
      <p role="status">
        <strong>{stateWord(order, isDone)}</strong>
        <span className="text-second">
          , sent by {order.asked_by} at {clock(order.made_at)}
        </span>
      </p>
      {order.problem && order.state === "failed" && <p className="text-measure">{order.problem.detail}</p>}
      <ul className="grid gap-0.5">
        {order.sheets.map((sheet) => (
          <li key={sheet.name} className="flex justify-between gap-3 text-[14px]">
            <span>{sheet.name}</span>
            <span className="num">{sheet.lines === 0 ? "not begun" : `${sheet.cut} of ${sheet.lines} lines cut`}</span>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        {isUnderWay && onStop && (
          <button type="button" className="button px-2 py-0.5" onClick={onStop}>
            Stop
          </button>
        )}
        {!isUnderWay && !isDone && onGoOn && (
          <button type="button" className="button px-2 py-0.5" onClick={onGoOn}>
            Go on cutting
          </button>
        )}
      </div>
      {order.log.length > 0 && (
        <details className="text-[13px]">
          <summary>Log of the machine</summary>
          <ol className="mt-1 grid gap-0.5">
            {order.log.map((word) => (
              <li key={`${word.at} ${word.said}`} className="tabular-nums">
                {clock(word.at)} {word.said}
              </li>
            ))}
          </ol>
        </details>
      )}
    </li>
  );
}

const clock = (at: string) =>
  new Date(at).toLocaleTimeString("en", { hour: "numeric", minute: "2-digit" }).toLowerCase();

function stateWord(order: CutOrderView, isDone: boolean): string {
  if (order.state === "running") return `Cutting ${order.progress ?? ""}`.trim();
  if (order.state === "waiting") return "Waiting for the machine";
  if (isDone) return "Cut";
  return order.state === "cancelled" ? "Stopped" : "Interrupted";
}
