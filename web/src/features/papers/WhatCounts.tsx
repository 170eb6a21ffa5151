import { useState } from "react";
import type { PlanDoc } from "@/api/client";
import { Segments } from "@/shared/ui/Segments";
import { withWeight } from "./model";

type Props = { plan: PlanDoc; mayChange: boolean; change: (next: PlanDoc, reason: string) => void };

const RULES: readonly { name: string; label: string }[] = [
  { name: "busy-sheets", label: "One busy sheet leads" },
  { name: "quiet-ground", label: "A quiet ground" },
  { name: "shared-colours", label: "Colours of the photos" },
  { name: "sinking-photos", label: "No photo sinks in" },
  { name: "lost-edges", label: "Edges are seen" },
  { name: "pattern-scale", label: "Pattern to its piece" },
  { name: "asked-kit", label: "The kit asked for" },
  { name: "same-ground", label: "Both pages alike" },
  { name: "using-up", label: "Scraps first" },
];

type Counts = "0" | "1" | "2";

const COUNTS: { value: Counts; label: string }[] = [
  { value: "0", label: "not" },
  { value: "1", label: "usual" },
  { value: "2", label: "more" },
];

/** How much each rule of the choice counts on this page. */
export function WhatCounts({ plan, mayChange, change }: Props) {
  const [open, setOpen] = useState(false);
  const weights = plan.papers?.weights ?? {};
  const set = Object.keys(weights).length;
  return (
    <div className="text-[13px]">
      <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
        {set > 0 ? `What counts here: ${set} of your own` : "What counts here"}
      </button>
      {open && (
        <ul className="mt-1 grid gap-1">
          {RULES.map(({ name, label }) => (
            <li key={name} className="flex items-center justify-between gap-2">
              <span>{label}</span>
              <Segments
                label={label}
                value={String(weights[name] ?? 1) as Counts}
                options={COUNTS}
                disabled={!mayChange}
                onChoose={(counts) =>
                  change(withWeight(plan, name, Number(counts)), `“${label}” counts ${WORDS[counts]}`)
                }
              />
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const WORDS: Record<Counts, string> = { "0": "not at all", "1": "as usual", "2": "more" };
