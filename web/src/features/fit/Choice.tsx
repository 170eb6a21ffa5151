import { useId } from "react";

export type Option = { value: string; label: string };

/** A row of the ledger: what it is about, and the field in which she chooses; `of` is the field's id. */
export function Row({ label, of, children }: { label: string; of: string; children: React.ReactNode }) {
  return (
    <div className="flex min-w-0 items-center gap-2">
      <label htmlFor={of} className="w-[74px] shrink-0 text-second">
        {label}
      </label>
      {children}
    </div>
  );
}

type Props = {
  label: string;
  /** The field's own name, where it is more than the row's. */
  name?: string;
  /** The value chosen now; empty where choosing does something once, or nothing in the list is chosen. */
  value: string;
  /** What the field says while nothing is chosen. */
  unchosen?: string | undefined;
  options: readonly Option[];
  onChoose: (option: Option) => void;
};

/** A row with a list to choose from. */
export function Choice({ label, name = label, value, unchosen, options, onChoose }: Props) {
  const id = useId();
  return (
    <Row label={label} of={id}>
      <select
        id={id}
        className="field min-w-0 flex-1 py-1"
        aria-label={name}
        value={value}
        onChange={(e) => {
          const option = options.find((o) => o.value === e.target.value);
          if (option) onChoose(option);
        }}
      >
        {unchosen && (
          <option value="" disabled>
            {unchosen}
          </option>
        )}
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </Row>
  );
}
