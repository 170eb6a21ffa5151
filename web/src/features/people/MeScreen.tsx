import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useForm } from "react-hook-form";
import { api, type DefaultsDoc, fieldError, type MeView } from "@/api/client";
import { STEPS } from "@/features/fit/model";
import type { Unit } from "@/shared/lengths/length";
import { Field } from "@/shared/ui/Field";
import { LengthField } from "@/shared/ui/LengthField";
import { useMe } from "./useMe";
import { useSaveMe } from "./useSaveMe";

/** Her name, what she starts every page with, and her password. */
export function MeScreen() {
  const me = useMe().data;
  if (!me?.name) return null;
  return (
    <main className="grid max-w-[60rem] gap-4 p-[18px] pt-2">
      <h1 className="text-[20px]">My defaults and password</h1>
      <div className="grid items-start gap-4 md:grid-cols-2">
        <Defaults me={me} />
        <Password />
      </div>
    </main>
  );
}

const USUAL: Record<Unit, { step: number; margin: number; fold_guard: number; border: number }> = {
  in: { step: 0.125, margin: 0.25, fold_guard: 0.25, border: 0.125 },
  mm: { step: 1, margin: 6, fold_guard: 6, border: 3 },
};

function Defaults({ me }: { me: MeView }) {
  const [name, setName] = useState(me.name ?? "");
  const { save } = useSaveMe();
  const d = me.defaults;
  const unit: Unit = d.unit === "mm" ? "mm" : "in";
  const set = (change: Partial<DefaultsDoc>) => save.mutate({ name: me.name ?? "", defaults: { ...d, ...change } });
  const length = (field: "margin" | "fold_guard" | "border", label: string) => (
    <LengthField
      label={label}
      inRow
      width="5.2rem"
      after={unit}
      value={d[field] ?? USUAL[unit][field]}
      unit={unit}
      most={3}
      onCommit={(v) => set({ unit, [field]: v })}
    />
  );
  return (
    <section aria-labelledby="defaults" className="sheet grid gap-3">
      <h2 id="defaults">What every new page starts with</h2>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate({ name, defaults: d });
        }}
      >
        <Field
          label="My name"
          value={name}
          error={fieldError(save.error, "name")}
          maxLength={200}
          onChange={(e) => setName(e.target.value)}
        />
        <button type="submit" className="button" disabled={name === me.name}>
          Change
        </button>
      </form>
      <label className="grid grid-cols-[9.5rem_minmax(0,1fr)] items-center gap-2 [&>select]:min-w-0 [&>select]:justify-self-start">
        <span className="text-second">I measure in</span>
        <select
          className="field py-1"
          value={d.unit ?? ""}
          onChange={(e) => {
            // Lengths of the other unit are no round numbers here: they start from what is usual.
            const next = e.target.value;
            const { theme, letter_keys, hands, checks_off } = d;
            save.mutate({
              name: me.name ?? "",
              defaults: {
                ...(next && { unit: next }),
                ...(theme && { theme }),
                ...(letter_keys && { letter_keys }),
                ...(hands && { hands }),
                ...(checks_off && { checks_off }),
              },
            });
          }}
        >
          <option value="">the sketch's own unit</option>
          <option value="in">inches</option>
          <option value="mm">millimetres</option>
        </select>
      </label>
      <label className="grid grid-cols-[9.5rem_minmax(0,1fr)] items-center gap-2 [&>select]:min-w-0 [&>select]:justify-self-start">
        <span className="text-second">ruler step</span>
        <select
          className="field py-1"
          value={String(d.step ?? USUAL[unit].step)}
          onChange={(e) => set({ unit, step: Number(e.target.value) })}
        >
          {STEPS[unit].map((s) => (
            <option key={s.label} value={String(s.value)}>
              {s.label}
            </option>
          ))}
        </select>
      </label>
      <div className="grid grid-cols-[9.5rem_minmax(0,1fr)] items-center gap-2">
        {length("margin", "margin")}
        {length("fold_guard", "fold guard")}
        {length("border", "mat border")}
      </div>
      <label className="grid grid-cols-[9.5rem_minmax(0,1fr)] items-center gap-2 [&>select]:min-w-0 [&>select]:justify-self-start">
        <span className="text-second">light or dark</span>
        <select className="field py-1" value={d.theme ?? "system"} onChange={(e) => set({ theme: e.target.value })}>
          <option value="system">as this device is set</option>
          <option value="light">light</option>
          <option value="dark">dark</option>
        </select>
      </label>
      <label className="grid grid-cols-[9.5rem_minmax(0,1fr)] items-center gap-2 [&>select]:min-w-0 [&>select]:justify-self-start">
        <span className="text-second">letter and number keys</span>
        <select
          className="field py-1"
          value={d.letter_keys ?? "on"}
          onChange={(e) => set({ letter_keys: e.target.value })}
        >
          <option value="on">on</option>
          <option value="off">off</option>
        </select>
      </label>
      <p role="status" className="text-second">
        {save.isPending
          ? "Saving…"
          : save.isSuccess
            ? "Saved."
            : "Saved as you choose. Pages already begun stay as they are."}
      </p>
      {save.isError && (
        <p role="alert" className="text-measure">
          {save.error.message}
        </p>
      )}
    </section>
  );
}

function Password() {
  const form = useForm({ defaultValues: { old: "", next: "" } });
  const change = useMutation({
    mutationFn: (given: { old: string; next: string }) => api.changePassword(given.old, given.next),
    onSuccess: () => form.reset(),
  });
  const told = fieldError(change.error, "old") ?? fieldError(change.error, "new");
  return (
    <form
      className="sheet grid gap-3"
      aria-labelledby="password"
      onSubmit={form.handleSubmit((given) => change.mutate(given))}
    >
      <h2 id="password">Password</h2>
      <Field
        label="The one I sign in with now"
        type="password"
        autoComplete="current-password"
        error={fieldError(change.error, "old")}
        {...form.register("old", { required: true })}
      />
      <Field
        label="The new one"
        type="password"
        autoComplete="new-password"
        error={fieldError(change.error, "new")}
        help="10 characters or more; a few plain words do well."
        {...form.register("next", { required: true })}
      />
      <button type="submit" className="button button-first justify-self-start" disabled={change.isPending}>
        Change the password
      </button>
      {change.isSuccess && <p role="status">Changed. Wherever else you were signed in, you are not any more.</p>}
      {change.isError && !told && (
        <p role="alert" className="text-measure">
          {change.error.message}
        </p>
      )}
    </form>
  );
}
