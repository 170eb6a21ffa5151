import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { type AskDoc, api, type CallDoc, type SketchDoc, zoneHere } from "@/api/client";
import { repeatChoices } from "@/features/season/words";
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
  unit: "in" | "mm";
  /** The page's own sketch: what is kept as the sketch that was asked for. */
  pageSketch?: SketchDoc;
  /** A call of the team's, that comes again and asks for a sketch of the drawer; or one page's own. */
  team?: boolean;
  /** The drawer's sketch that is asked for. */
  sketchId?: string | undefined;
  /** What the server found wrong. */
  error?: Error | undefined;
  onSave: (call: CallDoc, sketch: string | undefined) => void;
  onCancel: () => void;
};

/** Writes down what is asked: of a page, or of the team. */
export function CallForm({ call, unit, pageSketch, team = false, sketchId, error, onSave, onCancel }: Props) {
  const [sketch, setSketch] = useState(sketchId ?? "");
  const form = useRef<HTMLFormElement>(null);
  // Whoever comes by keyboard goes on where the form begins.
  useEffect(() => form.current?.querySelector("input")?.focus(), []);
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
  const hour = (field: "due_time" | "prize_time", label: string) => (
    <Field label={label} type="time" value={now[field] ?? ""} onChange={(e) => set({ [field]: e.target.value })} />
  );
  const save = () => {
    const asked = asks.some((a) => a.what === "sketch");
    const { sketch: before, ...rest } = now;
    const kept = before ?? pageSketch;
    const wrong =
      faultOf(now) ?? (team && asked && !sketch && !before ? "Choose the sketch that is asked for." : undefined);
    setTold(wrong);
    if (wrong) return;
    const hours = now.due_time || now.prize_time ? { zone: now.zone ?? zoneHere() } : { zone: "" };
    const own = team ? { unit } : {};
    const whole = {
      ...rest,
      ...hours,
      ...own,
      name: now.name.trim(),
      ...((asked || team) && kept && { sketch: kept }),
    };
    onSave(withoutGaps(whole), team && sketch && sketch !== sketchId ? sketch : undefined);
  };
  return (
    <form
      ref={form}
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
            unit={unit}
            team={team}
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
      {team && <DrawerSketch value={sketch} onChange={setSketch} kept={now.sketch?.name} />}
      <div className="grid gap-4 sm:grid-cols-3">
        {day("due", "With them by")}
        {day("shown", "Shown to all on")}
        {day("prize", "Prize closes on")}
        {now.due && hour("due_time", "by this hour")}
        {now.prize && hour("prize_time", "prize, at this hour")}
        {(now.due_time || now.prize_time) && <Zone value={now.zone ?? zoneHere()} onChange={(zone) => set({ zone })} />}
      </div>
      {team && now.due && <ComesAgain call={now} onChange={set} />}
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
      {(told ?? error) && (
        <p role="alert" className="text-measure">
          {told ?? error?.message}
        </p>
      )}
      <div className="flex gap-2">
        <button type="submit" className="button button-first">
          {team ? "Save the call" : "Save what is asked"}
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}

/** By whose clock the hours are told. */
function Zone({ value, onChange }: { value: string; onChange: (zone: string) => void }) {
  const zones = typeof Intl.supportedValuesOf === "function" ? Intl.supportedValuesOf("timeZone") : [];
  return (
    <label className="grid min-w-0 content-start gap-1">
      <span className="font-medium">by the clock of</span>
      <select className="field w-full min-w-0 py-1.5" value={value} onChange={(e) => onChange(e.target.value)}>
        {[...new Set([value, "UTC", ...zones])].map((z) => (
          <option key={z} value={z}>
            {z.replaceAll("_", " ")}
          </option>
        ))}
      </select>
    </label>
  );
}

/** The sketch in the drawer that is asked for. */
function DrawerSketch({
  value,
  onChange,
  kept,
}: {
  value: string;
  onChange: (id: string) => void;
  kept: string | undefined;
}) {
  const drawer = useQuery({ queryKey: ["sketches", "", false], queryFn: () => api.sketches("", false) });
  return (
    <label className="grid gap-1">
      <span className="font-medium">The sketch that is asked for</span>
      <select className="field py-1.5" value={value} onChange={(e) => onChange(e.target.value)}>
        <option value="">{kept ? `${kept}, as it was` : "none: each maker chooses her own"}</option>
        {drawer.data?.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** How a team's call comes again, counted from its day. */
function ComesAgain({ call, onChange }: { call: CallDoc; onChange: (change: Partial<CallDoc>) => void }) {
  const { repeats } = call;
  const choices = repeatChoices(call.due ?? "");
  const now = repeats ? `${repeats.every} ${repeats.number}` : "";
  const known = now === "" || choices.some((c) => c.value === now);
  const choose = (value: string) => {
    const found = choices.find((c) => c.value === value)?.repeats;
    const until = repeats?.until ? { until: repeats.until } : {};
    onChange({ repeats: found ? { ...found, ...until } : null });
  };
  return (
    <div className="grid gap-4 sm:grid-cols-3">
      <label className="grid content-start gap-1">
        <span className="font-medium">It comes again</span>
        <select className="field py-1.5" value={now} onChange={(e) => choose(e.target.value)}>
          <option value="">no: once</option>
          {!known && <option value={now}>as it does now</option>}
          {choices.map((c) => (
            <option key={c.value} value={c.value}>
              {c.label}
            </option>
          ))}
        </select>
      </label>
      {repeats && (
        <Field
          label="until (or without end)"
          type="date"
          value={repeats.until ?? ""}
          onChange={(e) => {
            const { until: _, ...rest } = repeats;
            onChange({ repeats: e.target.value ? { ...rest, until: e.target.value } : rest });
          }}
        />
      )}
    </div>
  );
}

type RowProps = { ask: AskDoc; unit: "in" | "mm"; team: boolean; onChange: (ask: AskDoc | undefined) => void };

function AskRow({ ask, unit, team, onChange }: RowProps) {
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
            {team && w.value === "sketch" ? "the sketch" : w.label}
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
