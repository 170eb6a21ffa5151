import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { isForHouse } from "@/shared/ui/letterKeys";

const KEYS: readonly (readonly [string, string])[] = [
  ["?", "this sheet of keys"],
  ["1 2 3 …", "select the block of that number"],
  ["↑ ↓", "the block before, the block after"],
  ["Esc", "back to the page; there, let go of the block; or close what is open"],
  ["Ctrl Z", "undo, also what was done yesterday"],
  ["Ctrl Shift Z", "redo"],
  ["H", "the page's history"],
  ["Tab", "to the next field or button"],
  ["Enter", "take what was typed"],
];

/** The sheet of keys, on `?`. */
export function KeySheet() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === "?" && isForHouse(e)) setOpen(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/50" />
        <Dialog.Content
          aria-describedby={undefined}
          className="sheet fixed top-1/2 left-1/2 z-20 w-[30rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 p-5"
        >
          <Dialog.Title className="text-[17px]">Keys</Dialog.Title>
          <p className="mt-1 text-second">
            Letters and numbers work while the page has the focus. They can be switched off under “My defaults and
            password”.
          </p>
          <dl className="mt-3 grid grid-cols-[9rem_1fr] gap-y-1.5">
            {KEYS.map(([key, does]) => (
              <div key={key} className="contents">
                <dt>
                  <kbd className="rounded-[3px] border border-second px-1.5 font-body font-semibold">{key}</kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <div className="mt-4 flex justify-end">
            <Dialog.Close className="button">Close</Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
