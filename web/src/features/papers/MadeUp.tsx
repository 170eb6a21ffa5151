import { useState } from "react";
import type { PaperedPieceDoc, PlanDoc } from "@/api/client";
import { Segments } from "@/shared/ui/Segments";
import { choiceOf, withChoice } from "./model";

type Props = {
  plan: PlanDoc;
  piece: PaperedPieceDoc;
  label: string;
  mayChange: boolean;
  change: (next: PlanDoc, reason: string) => void;
};

type Medium = "ink" | "paint" | "spray";

const MEDIA: { value: Medium; label: string }[] = [
  { value: "ink", label: "ink" },
  { value: "paint", label: "paint" },
  { value: "spray", label: "spray" },
];
const CARE: Record<Medium, string> = {
  ink: "Let it dry before anything is glued to it.",
  paint: "Cover the table, and let it dry flat. Follow what the maker of the paint says.",
  spray: "Spray in a box, with a window open, away from food and flames. Follow what the can says.",
};

/** No such colour left? A piece can be inked, painted or sprayed, whole or along its edges, and its edges roughened. */
export function MadeUp({ plan, piece, label, mayChange, change }: Props) {
  const { made, rough } = choiceOf(plan, piece);
  const [open, setOpen] = useState(false);
  if (!made && !rough && !open) {
    return mayChange ? (
      <p className="text-[13px] text-second">
        The colour is missing?{" "}
        <button type="button" className="link" onClick={() => setOpen(true)}>
          Ink, paint or spray this piece
        </button>
      </p>
    ) : null;
  }
  const set = (next: typeof made) => change(withChoice(plan, piece, { made: next }), `${label} ${said(next)}`);
  const colour = made?.colour ?? "#3d6fb0";
  return (
    <fieldset className="grid gap-1.5 rounded-[3px] border border-hairline p-2" disabled={!mayChange}>
      <legend className="px-1 text-[13px] text-second">Colour brought on</legend>
      <div className="flex flex-wrap items-center gap-2">
        <Segments
          label="With what"
          value={made?.medium as Medium | undefined}
          options={MEDIA}
          onChoose={(medium) => set({ colour, edges: made?.edges ?? false, medium })}
        />
        <label className="flex items-center gap-1.5 text-second">
          in
          <input
            type="color"
            aria-label="Its colour"
            value={colour}
            onChange={(e) =>
              set({ medium: made?.medium ?? "ink", edges: made?.edges ?? false, colour: e.target.value })
            }
          />
        </label>
      </div>
      <div className="flex flex-wrap items-center gap-x-4">
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={made?.edges ?? false}
            onChange={(e) => set({ medium: made?.medium ?? "ink", colour, edges: e.target.checked })}
          />
          only its edges
        </label>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={rough ?? false}
            onChange={(e) =>
              change(
                withChoice(plan, piece, { rough: e.target.checked || undefined }),
                `edges of ${label} ${e.target.checked ? "roughened" : "smooth"}`,
              )
            }
          />
          roughened edges
        </label>
        {made && (
          <button type="button" className="link" onClick={() => set(undefined)}>
            leave it as it is
          </button>
        )}
      </div>
      {made && <p className="text-[13px] text-second">{CARE[made.medium as Medium]}</p>}
    </fieldset>
  );
}

function said(made: { medium: string; edges?: boolean | null } | null | undefined): string {
  if (!made) return "left as it is";
  const done: Record<string, string> = { ink: "inked", paint: "painted", spray: "sprayed" };
  return `${done[made.medium] ?? made.medium}${made.edges ? " at the edges" : ""}`;
}
