import { useId } from "react";

type Props = React.InputHTMLAttributes<HTMLInputElement> & {
  label: string;
  error?: string | undefined;
  help?: string | undefined;
  ref?: React.Ref<HTMLInputElement>;
};

/** A labelled field; what is wrong with it stands under it. */
export function Field({ label, error, help, ...input }: Props) {
  const id = useId();
  const told = error ?? help;
  return (
    <div className="grid gap-1">
      <label htmlFor={id} className="font-medium">
        {label}
      </label>
      <input
        id={id}
        className="field px-2 py-1.5"
        aria-invalid={error !== undefined}
        aria-describedby={told ? `${id}-told` : undefined}
        {...input}
      />
      {told && (
        <p id={`${id}-told`} role={error ? "alert" : undefined} className={error ? "text-measure" : "text-second"}>
          {told}
        </p>
      )}
    </div>
  );
}
