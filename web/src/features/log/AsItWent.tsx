import { useId, useState } from "react";
import { type LogEntryDoc, type LogSeenDoc, newKey, type PlanDoc } from "@/api/client";
import { timeText } from "@/features/build/model";
import type { Unit } from "@/shared/lengths/length";
import { LengthField } from "@/shared/ui/LengthField";
import { entriesOf, entryText, WRONG } from "./model";

type Props = {
  plan: PlanDoc;
  seen: LogSeenDoc | undefined;
  unit: Unit;
  mayChange: boolean;
  /** Blocks with their numbers: the sketch's id and the number. */
  blocks: readonly (readonly [string, string])[];
  onWrite: (entry: LogEntryDoc) => void;
  onTakeOut: (id: string) => void;
  onRemember: (text: string) => void;
};

/** How long it took, and what happened, hour by hour. */
export function AsItWent({ plan, seen, unit, mayChange, blocks, onWrite, onTakeOut, onRemember }: Props) {
  const entries = new Map(entriesOf(plan).map((e) => [e.id, e]));
  // An entry that is not saved yet stands below what the server has put in order.
  const listed = new Set((seen?.days ?? []).flatMap((d) => d.entries));
  const fresh = [...entries.keys()].filter((id) => !listed.has(id));
  const days = [...(seen?.days ?? []), ...(fresh.length > 0 ? [{ day: "", entries: fresh }] : [])];
  return (
    <section aria-labelledby="as-it-went" className="sheet grid gap-3">
      <h2 id="as-it-went" className="text-[17px]">
        As it went
      </h2>
      {seen && <Times planned={seen.planned} took={seen.took} />}
      {entries.size === 0 && (
        <p className="text-second">Nothing is written yet. Ticks at the Build station come here by themselves.</p>
      )}
      {days.map(({ day, entries: ids }) => (
        <div key={day}>
          {day && <h3 className="text-[13px] text-second">{dayText(day)}</h3>}
          <ol>
            {ids.map((id) => {
              const entry = entries.get(id);
              return (
                entry && (
                  <Written
                    key={id}
                    entry={entry}
                    isAhead={seen?.ahead.includes(id) ?? false}
                    onTakeOut={mayChange ? () => onTakeOut(id) : undefined}
                  />
                )
              );
            })}
          </ol>
        </div>
      ))}
      {mayChange && <Write unit={unit} blocks={blocks} onWrite={onWrite} />}
      <Remember text={plan.log?.remember ?? ""} mayChange={mayChange} onCommit={onRemember} />
    </section>
  );
}

function Times({ planned, took }: { planned: number | null; took: number }) {
  const most = Math.max(planned ?? 0, took, 1);
  const bar = (minutes: number) => ({ width: `${(100 * minutes) / most}%` });
  return (
    <div className="grid gap-1 text-[13px]">
      {planned !== null && (
        <>
          <p className="flex justify-between">
            <span>planned</span>
            <strong className="tabular-nums">{timeText(planned)}</strong>
          </p>
          <div className="h-2.5 border border-hairline bg-tray" style={bar(planned)} />
        </>
      )}
      <p className="flex justify-between">
        <span>it took</span>
        <strong className="tabular-nums">{took > 0 ? timeText(took) : "not known yet"}</strong>
      </p>
      {took > 0 && <div className="h-2.5 bg-ink" style={bar(took)} />}
    </div>
  );
}

function Written({
  entry,
  isAhead,
  onTakeOut,
}: {
  entry: LogEntryDoc;
  isAhead: boolean;
  onTakeOut: (() => void) | undefined;
}) {
  return (
    <li className="grid grid-cols-[3.2rem_minmax(0,1fr)_auto] gap-x-2 border-hairline border-t py-1.5 text-[14px]">
      <strong className="tabular-nums">{clock(entry.at)}</strong>
      <span>
        <span className={entry.kind === "wrong" ? "text-measure" : ""}>{entryText(entry)}</span>
        {isAhead && <span className="block text-[13px] text-measure">This time lies ahead: a clock was wrong.</span>}
        {onTakeOut && entry.kind !== "step" && (
          <button
            type="button"
            className="block text-[13px] text-second underline"
            aria-label={`Take it out: ${entryText(entry)}`}
            onClick={onTakeOut}
          >
            Take it out
          </button>
        )}
      </span>
      {entry.longer ? <span className="whitespace-nowrap text-measure">+{entry.longer} min</span> : <span />}
    </li>
  );
}

/** A note, or something that went wrong. */
function Write({
  unit,
  blocks,
  onWrite,
}: {
  unit: Unit;
  blocks: readonly (readonly [string, string])[];
  onWrite: (entry: LogEntryDoc) => void;
}) {
  const [kind, setKind] = useState("note");
  const [text, setText] = useState("");
  const [block, setBlock] = useState("");
  const [by, setBy] = useState(0);
  const id = useId();
  const write = () => {
    const wrong = kind === "note" ? {} : { wrong: kind };
    onWrite({
      id: newKey(),
      at: new Date().toISOString(),
      kind: kind === "note" ? "note" : "wrong",
      ...wrong,
      ...(text.trim() ? { text: text.trim() } : {}),
      ...(block ? { block } : {}),
      ...(kind === "cut-short" && by > 0 ? { by } : {}),
    });
    setText("");
    setBy(0);
  };
  return (
    <form
      className="grid gap-1.5 border-hairline border-t pt-2 text-[14px]"
      onSubmit={(e) => {
        e.preventDefault();
        write();
      }}
    >
      <div className="flex flex-wrap gap-1.5">
        <select
          aria-label="What is written down"
          className="field px-1.5 py-0.5"
          value={kind}
          onChange={(e) => setKind(e.target.value)}
        >
          <option value="note">a note</option>
          {WRONG.map(([value, said]) => (
            <option key={value} value={value}>
              {said}
            </option>
          ))}
        </select>
        {kind !== "note" && (
          <select
            aria-label="Which block"
            className="field px-1.5 py-0.5"
            value={block}
            onChange={(e) => setBlock(e.target.value)}
          >
            <option value="">no block</option>
            {blocks.map(([of, number]) => (
              <option key={of} value={of}>
                {number}
              </option>
            ))}
          </select>
        )}
      </div>
      {kind === "cut-short" && <LengthField label="short by" value={by} unit={unit} most={24} onCommit={setBy} />}
      <label htmlFor={id} className="sr-only">
        In your words
      </label>
      <textarea
        id={id}
        className="field w-full px-2 py-1"
        rows={2}
        placeholder="in your words"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <button type="submit" className="button justify-self-start" disabled={kind === "note" && text.trim() === ""}>
        Write it down
      </button>
    </form>
  );
}

function Remember({
  text,
  mayChange,
  onCommit,
}: {
  text: string;
  mayChange: boolean;
  onCommit: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string>();
  const id = useId();
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className="font-semibold text-[15px]">
        To remember
      </label>
      <textarea
        id={id}
        className="field w-full px-2 py-1 text-[14px]"
        rows={2}
        readOnly={!mayChange}
        placeholder="what you want to think of next time"
        value={typed ?? text}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          if (typed !== undefined && typed !== text) onCommit(typed);
          setTyped(undefined);
        }}
      />
    </div>
  );
}

const clock = (at: string) => new Date(at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

const dayText = (day: string) =>
  new Date(`${day}T12:00:00`).toLocaleDateString("en-GB", { weekday: "long", day: "numeric", month: "long" });
