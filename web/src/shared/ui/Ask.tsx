import { useForm } from "react-hook-form";
import { Field } from "./Field";
import { CloseSheet, Sheet } from "./Sheet";

type Props = {
  title: string;
  label: string;
  value: string;
  yes: string;
  /** A day is picked from a calendar; leaving it empty is an answer. */
  type?: "text" | "date";
  error?: string | undefined;
  onYes: (text: string) => void;
  onClose: () => void;
};

/** Asks for one short text or a day: a new name, a due date. */
export function Ask({ title, label, value, yes, type = "text", error, onYes, onClose }: Props) {
  const form = useForm({ defaultValues: { text: value } });
  return (
    <Sheet title={title} onClose={onClose}>
      <form className="mt-3 grid gap-4" onSubmit={form.handleSubmit(({ text }) => onYes(text))}>
        <Field
          label={label}
          type={type}
          error={error}
          {...(type === "text" ? { maxLength: 200 } : {})}
          {...form.register("text")}
        />
        <div className="flex justify-end gap-2">
          <CloseSheet>Cancel</CloseSheet>
          <button type="submit" className="button button-first">
            {yes}
          </button>
        </div>
      </form>
    </Sheet>
  );
}
