import { useRef } from "react";
import type { FitDoc } from "@/api/client";
import { isForPage } from "@/shared/ui/letterKeys";
import { useKeyBindings } from "@/shared/ui/useKeyBindings";

/** Digits typed within this time belong to one number. */
const TOGETHER = 700;

type Keys = {
  fit: FitDoc;
  selected: string | undefined;
  setSelected: (id: string | undefined) => void;
  undo: () => void;
  redo: () => void;
};

const WRITING = "input, select, textarea, [role=dialog], [role=radiogroup]";
const isWriting = (e: KeyboardEvent) => e.target instanceof HTMLElement && e.target.closest(WRITING) !== null;

/** On the page a block's number selects it, and the arrows go to the next or last block. Escape lets go; undo and redo work anywhere. */
export function useKeys({ fit, selected, setSelected, undo, redo }: Keys) {
  const typed = useRef({ digits: "", at: 0 });
  const blocks = fit.sketch.blocks;

  const steps = (go: () => void) => (e: KeyboardEvent) => {
    if (isWriting(e)) return;
    e.preventDefault();
    go();
  };
  const next = (by: 1 | -1) => (e: KeyboardEvent) => {
    if (isWriting(e) || !isForPage(e)) return;
    e.preventDefault();
    const at = blocks.findIndex((b) => b.id === selected);
    const to = by === 1 ? at + 1 : (at < 0 ? blocks.length : at) - 1;
    setSelected(blocks[(to + blocks.length) % blocks.length]?.id);
  };
  const digit = (e: KeyboardEvent) => {
    if (isWriting(e) || !isForPage(e)) return;
    const now = Date.now();
    const earlier = now - typed.current.at < TOGETHER ? typed.current.digits : "";
    const block = blocks[Number(earlier + e.key) - 1];
    typed.current = { digits: block ? earlier + e.key : e.key, at: now };
    setSelected((block ?? blocks[Number(e.key) - 1])?.id);
  };

  useKeyBindings({
    "$mod+z": steps(undo),
    "$mod+Shift+z": steps(redo),
    Escape: (e) => !isWriting(e) && setSelected(undefined),
    ArrowDown: next(1),
    ArrowUp: next(-1),
    ...Object.fromEntries([..."0123456789"].flatMap((d) => [[d, digit] as const, [`Shift+${d}`, digit] as const])),
  });
}
