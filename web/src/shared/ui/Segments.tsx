import { ToggleGroup } from "radix-ui";

type Props<V extends string> = {
  /** What is chosen here. */
  label: string;
  value: V | undefined;
  options: readonly { value: V; label: string }[];
  disabled?: boolean;
  onChoose: (value: V) => void;
};

/** One of a few, side by side. Arrow keys go from one to the next. */
export function Segments<V extends string>({ label, value, options, disabled, onChoose }: Props<V>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value ?? ""}
      disabled={disabled ?? false}
      onValueChange={(chosen) => chosen && onChoose(chosen as V)}
      className="inline-flex"
    >
      {options.map((o, n) => (
        <ToggleGroup.Item
          key={o.value}
          value={o.value}
          className={`button justify-center px-2 py-0.5 pointer-coarse:min-h-[44px] ${n > 0 ? "-ml-px rounded-l-none" : ""} ${n < options.length - 1 ? "rounded-r-none" : ""}`}
        >
          {o.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
