import { Dialog } from "radix-ui";
import { useState } from "react";
import { Field } from "./Field";

type Props = {
  title: string;
  label: string;
  value: string;
  yes: string;
  error?: string | undefined;
  onYes: (text: string) => void;
  onClose: () => void;
};

/** Asks for one short text: a new name. */
export function Ask({ title, label, value, yes, error, onYes, onClose }: Props) {
  const [text, setText] = useState(value);
  return (
    <Dialog.Root open onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content
          aria-describedby={undefined}
          className="sheet fixed top-1/2 left-1/2 z-20 w-[26rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 p-5"
        >
          <Dialog.Title className="text-[17px]">{title}</Dialog.Title>
          <form
            className="mt-3 grid gap-4"
            onSubmit={(e) => {
              e.preventDefault();
              onYes(text);
            }}
          >
            <Field label={label} value={text} error={error} maxLength={200} onChange={(e) => setText(e.target.value)} />
            <div className="flex justify-end gap-2">
              <Dialog.Close className="button">Leave it</Dialog.Close>
              <button type="submit" className="button button-first">
                {yes}
              </button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
