import { fieldError } from "@/api/client";
import { Field } from "@/shared/ui/Field";

/** What a picture is said to show, as typed. */
export type Said = {
  finished: boolean;
  name: string;
  maker: string;
  after: string;
  width: string;
  height: string;
  pages: number;
};

type Props = {
  said: Said;
  onSay: (said: Said) => void;
  unit: "in" | "mm";
  error: Error | null;
  /** A picture that is read already stays what it is. */
  fixed?: boolean;
};

/** What the picture shows: a sketch or a finished page, its name, size and number of pages. */
export function PictureForm({ said, onSay, unit, error, fixed = false }: Props) {
  const say = (part: Partial<Said>) => onSay({ ...said, ...part });
  const fields = { width: fieldError(error, "width"), height: fieldError(error, "height") };
  return (
    <>
      {!fixed && (
        <fieldset className="grid gap-1">
          <legend className="font-medium">It is</legend>
          {[false, true].map((f) => (
            <label key={String(f)} className="flex min-h-6 items-center gap-1.5">
              <input type="radio" name="what" checked={said.finished === f} onChange={() => say({ finished: f })} />
              {f ? "a finished page to lift" : "a page sketch to read"}
            </label>
          ))}
        </fieldset>
      )}
      <Field label="Name" value={said.name} maxLength={120} onChange={(e) => say({ name: e.target.value })} />
      <div className="grid grid-cols-2 items-end gap-2 [&>div]:min-w-0 [&_input]:min-w-0">
        <Field
          label={`Page width (${unit})`}
          value={said.width}
          error={fields.width}
          onChange={(e) => say({ width: e.target.value })}
        />
        <Field
          label={`Page height (${unit})`}
          value={said.height}
          error={fields.height}
          onChange={(e) => say({ height: e.target.value })}
        />
      </div>
      {said.finished && (
        <>
          <Field
            label="Made by"
            value={said.maker}
            maxLength={120}
            help="Named wherever a page from it is shown."
            onChange={(e) => say({ maker: e.target.value })}
          />
          <Field
            label="After, oldest first"
            value={said.after}
            maxLength={400}
            help="Earlier makers of a hop, with commas."
            onChange={(e) => say({ after: e.target.value })}
          />
        </>
      )}
      <fieldset className="flex gap-4">
        <legend className="font-medium">The picture shows</legend>
        {[1, 2].map((n) => (
          <label key={n} className="flex min-h-6 items-center gap-1.5">
            <input type="radio" name="pages" checked={said.pages === n} onChange={() => say({ pages: n })} />
            {n === 1 ? "one page" : "two pages"}
          </label>
        ))}
      </fieldset>
    </>
  );
}
