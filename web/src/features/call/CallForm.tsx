import { useState } from "react";
import type { AskDoc, CallDoc, SketchDoc } from "@/api/client";
import { unitOf } from "@/features/sketch/model";
import { Field } from "@/shared/ui/Field";
import { LengthField } from "@/shared/ui/LengthField";
import { faultOf, needsOf, nextLetter, ofKind, WHATS, withoutGaps } from "./asks";

const KINDS = [
  { value: "challenge", label: "a challenge" },
  { value: "kit", label: "a kit to use" },
  { value: "scraplift", label: "a scraplift" },
  { value: "hop", label: "a page of a hop" },
];

type Props = {
  call: CallDoc | undefined;
  /** The page's own sketch: what is kept as the sketch that was asked for. */
  sketch: SketchDoc;
  onSave: (call: CallDoc) => void;
  onCancel: () => void;
};

/** Writes down what a page is asked for. */
export function CallForm({ call, sketch, onSave, onCancel }: Props) {
  const [now, setNow] = useState<CallDoc>(call ?? { name: "", kind: "challenge", asks: [] });
  const [told, setTold] = useState<string>();
  const set = (change: Partial<CallDoc>) => setNow((c) => ({ ...c, ...change }));
  const asks = now.asks ?? [];
  const credits = now.credits ?? [];
  const links = now.links ?? [];
  const replaced = <T,>(all: readonly T[], n: number, one: T | undefined) =>
    all.flatMap((old, at) => (at === n ? (one === undefined ? [] : [one]) : [old]));
  const day = (field: "due" | "shown" | "prize", label: string) => (
    <Field label={label} type="date" value={now[field] ?? ""} onChange={(e) => set({ [field]: e.target.value })} />
  );
  const save = () => {
    const wrong = faultOf(now);
    setTold(wrong);
    if (wrong) return;
    const asked = asks.some((a) => a.what === "sketch");
    const { sketch: before, ...rest } = now;
    onSave(withoutGaps({ ...rest, name: now.name.trim(), ...(asked && { sketch: before ?? sketch }) }));
  };
  return (
    <form
      className="sheet grid gap-4"
      aria-label="What is asked"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <div className="grid gap-4 sm:grid-cols-[1fr_12rem]">
        <Field
          label="Name of the call"
          value={now.name}
          maxLength={200}
          onChange={(e) => set({ name: e.target.value })}
        />
        <label className="grid content-start gap-1">
          <span className="font-medium">It is</span>
          <select
            className="field py-1.5"
            value={now.kind ?? "challenge"}
            onChange={(e) => set({ kind: e.target.value })}
          >
            {KINDS.map((k) => (
              <option key={k.value} value={k.value}>
                {k.label}
              </option>
            ))}
          </select>
        </label>
      </div>
      <label className="grid gap-1">
        <span className="font-medium">In their words</span>
        <textarea
          className="field px-2 py-1.5"
          rows={3}
          maxLength={4000}
          value={now.text ?? ""}
          onChange={(e) => set({ text: e.target.value })}
        />
      </label>
      <fieldset className="grid gap-2">
        <legend className="mb-1 font-medium">What must be on the page</legend>
        {asks.map((ask, n) => (
          <AskRow
            key={ask.id}
            ask={ask}
            unit={unitOf(sketch)}
            onChange={(one) => set({ asks: replaced(asks, n, one) })}
          />
        ))}
        <button
          type="button"
          className="button justify-self-start"
          onClick={() => set({ asks: [...asks, { id: nextLetter(asks), what: "other", name: "" }] })}
        >
          Add something
        </button>
      </fieldset>
      <div className="grid gap-4 sm:grid-cols-3">
        {day("due", "With them by")}
        {day("shown", "Shown to all on")}
        {day("prize", "Prize closes on")}
      </div>
      <Pairs
        title="Whom to name"
        first="for what"
        second="who"
        rows={credits.map((c) => [c.what, c.name])}
        onChange={(rows) => set({ credits: rows.map(([what, name]) => ({ what, name })) })}
      />
      <Pairs
        title="Links"
        first="to what"
        second="https://…"
        rows={links.map((l) => [l.name, l.url])}
        onChange={(rows) => set({ links: rows.map(([name, url]) => ({ name, url })) })}
      />
      {told && (
        <p role="alert" className="text-measure">
          {told}
        </p>
      )}
      <div className="flex gap-2">
        <button type="submit" className="button button-first">
          Save what is asked
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}

type RowProps = { ask: AskDoc; unit: "in" | "mm"; onChange: (ask: AskDoc | undefined) => void };

function AskRow({ ask, unit, onChange }: RowProps) {
  const needs = needsOf(ask.what);
  const length = (side: "w" | "h") => (
    <LengthField
      label={side === "w" ? `${ask.id}: width` : `${ask.id}: height`}
      hideLabel
      value={ask[side] ?? 0}
      unit={unit}
      least={unit === "mm" ? 10 : 0.5}
      most={unit === "mm" ? 1000 : 40}
      width="4rem"
      onCommit={(v) => onChange({ ...ask, [side]: v })}
    />
  );
  return (
    <div className="flex flex-wrap items-center gap-2">
      <b className="w-5">{ask.id}</b>
      <select
        className="field py-1"
        aria-label={`What is asked under ${ask.id}`}
        value={ask.what}
        onChange={(e) => onChange(ofKind(ask, e.target.value, unit))}
      >
        {WHATS.map((w) => (
          <option key={w.value} value={w.value}>
            {w.label}
          </option>
        ))}
      </select>
      {(needs === "count" || needs === "papers") && (
        <input
          type="number"
          className="field w-[4rem] py-1 text-right"
          aria-label={`${ask.id}: how many`}
          min={1}
          max={ask.what === "pages" ? 2 : 60}
          value={ask.count ?? 1}
          onChange={(e) => onChange({ ...ask, count: Math.max(1, Number(e.target.value) || 1) })}
        />
      )}
      {needs === "papers" && (
        <input
          className="field min-w-[8rem] flex-1 px-2 py-1"
          aria-label={`${ask.id}: of which kit`}
          placeholder="of which kit"
          maxLength={200}
          value={ask.kit ?? ""}
          onChange={(e) => {
            const { kit: _, ...plain } = ask;
            onChange(e.target.value ? { ...plain, kit: e.target.value } : plain);
          }}
        />
      )}
      {needs === "size" && (
        <span className="flex items-center gap-1.5">
          {length("w")} × {length("h")} {unit}
        </span>
      )}
      {needs === "name" && (
        <input
          className="field min-w-[10rem] flex-1 px-2 py-1"
          aria-label={`${ask.id}: what`}
          maxLength={200}
          value={ask.name ?? ""}
          onChange={(e) => onChange({ ...ask, name: e.target.value })}
        />
      )}
      <button type="button" className="link" aria-label={`Remove ${ask.id}`} onClick={() => onChange(undefined)}>
        Remove
      </button>
    </div>
  );
}

type PairsProps = {
  title: string;
  first: string;
  second: string;
  rows: readonly (readonly [string, string])[];
  onChange: (rows: (readonly [string, string])[]) => void;
};

function Pairs({ title, first, second, rows, onChange }: PairsProps) {
  const put = (n: number, pair: readonly [string, string]) => onChange(rows.map((r, at) => (at === n ? pair : r)));
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-medium">{title}</legend>
      {rows.map(([a, b], n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
        <div key={n} className="flex flex-wrap gap-2">
          <input
            className="field w-[10rem] px-2 py-1"
            aria-label={`${title} ${n + 1}: ${first}`}
            placeholder={first}
            maxLength={200}
            value={a}
            onChange={(e) => put(n, [e.target.value, b])}
          />
          <input
            className="field min-w-[10rem] flex-1 px-2 py-1"
            aria-label={`${title} ${n + 1}: ${second}`}
            placeholder={second}
            maxLength={2000}
            value={b}
            onChange={(e) => put(n, [a, e.target.value])}
          />
          <button
            type="button"
            className="link"
            aria-label={`Remove ${title} ${n + 1}`}
            onClick={() => onChange(rows.filter((_, at) => at !== n))}
          >
            Remove
          </button>
        </div>
      ))}
      <button type="button" className="button justify-self-start" onClick={() => onChange([...rows, ["", ""]])}>
        Add one
      </button>
    </fieldset>
  );
}
