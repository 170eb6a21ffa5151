import { type ReactNode, useId } from "react";

type Props = { children: ReactNode; accept: string; disabled?: boolean; onChoose: (file: File) => void };

/** A button that asks for a file. The same file can be chosen again. */
export function FileButton({ children, accept, disabled, onChoose }: Props) {
  const id = useId();
  return (
    <label htmlFor={id} className="button inline-block cursor-pointer focus-within:outline-2">
      {children}
      <input
        id={id}
        type="file"
        accept={accept}
        className="sr-only"
        disabled={disabled ?? false}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onChoose(file);
        }}
      />
    </label>
  );
}
