import { useState } from "react";
import { isForHouse } from "@/shared/ui/letterKeys";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { useKeyBindings } from "@/shared/ui/useKeyBindings";

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
  const show = (e: KeyboardEvent) => isForHouse(e) && setOpen(true);
  useKeyBindings({ "?": show, "Shift+?": show });
  if (!open) return null;
  return (
    <Sheet
      title="Keys"
      width="middle"
      onClose={() => setOpen(false)}
      about="Letters and numbers work while the page has the focus. They can be switched off under “My defaults and password”."
    >
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
        <CloseSheet />
      </div>
    </Sheet>
  );
}
