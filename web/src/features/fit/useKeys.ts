import { useEffect, useRef } from "react";
import type { FitDoc } from "@/api/client";
import { isForPage } from "@/shared/ui/letterKeys";

/** Digits typed within this time belong to one number. */
const TOGETHER = 700;

type Keys = {
  fit: FitDoc;
  selected: string | undefined;
  setSelected: (id: string | undefined) => void;
  undo: () => void;
  redo: () => void;
};

/** On the page a block's number selects it, and the arrows go to the next or last block. Escape lets go; undo and redo work anywhere. */
export function useKeys({ fit, selected, setSelected, undo, redo }: Keys) {
  const typed = useRef({ digits: "", at: 0 });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const field =
        e.target instanceof HTMLElement &&
        e.target.closest("input, select, textarea, [role=dialog], [role=radiogroup]");
      if (field) return;
      const blocks = fit.sketch.blocks;
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z") {
        e.preventDefault();
        (e.shiftKey ? redo : undo)();
        return;
      }
      if (e.key === "Escape") return setSelected(undefined);
      if (!isForPage(e)) return;
      if (/^[0-9]$/.test(e.key)) {
        const now = Date.now();
        const earlier = now - typed.current.at < TOGETHER ? typed.current.digits : "";
        const block = blocks[Number(earlier + e.key) - 1];
        const digits = block ? earlier + e.key : e.key;
        typed.current = { digits, at: now };
        setSelected((block ?? blocks[Number(e.key) - 1])?.id);
      } else if (e.key === "ArrowDown" || e.key === "ArrowUp") {
        e.preventDefault();
        const at = blocks.findIndex((b) => b.id === selected);
        const next = e.key === "ArrowDown" ? at + 1 : (at < 0 ? blocks.length : at) - 1;
        setSelected(blocks[(next + blocks.length) % blocks.length]?.id);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [fit, selected, setSelected, undo, redo]);
}
