import { useState } from "react";
import type { LetterTrayDoc, TitleSettingDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { Length } from "@/shared/ui/Length";
import { spentOf } from "./model";

type Props = { trays: readonly LetterTrayDoc[]; setting: TitleSettingDoc | undefined; unit: Unit };

/** A letter set as it lies on its sheet: a stroke for each letter that is left after this title; what is gone is an outline. */
export function LetterTray({ trays, setting, unit }: Props) {
  const [chosen, setChosen] = useState<string>();
  const used = setting?.lines[0]?.set;
  const tray = trays.find((t) => t.id === (chosen ?? used)) ?? trays[0];
  if (!tray) {
    return (
      <div className="sheet">
        <h2 className="text-[17px]">Letters</h2>
        <p className="mt-1 text-second">
          No letter set is in the stash yet. Put one away there, say how many of each letter are left, and titles can be
          set.
        </p>
      </div>
    );
  }
  const spent = spentOf(setting, tray.id);
  const left = tray.letters.reduce((sum, l) => sum + l.left - (spent.get(l.letter) ?? 0), 0);
  const had = tray.letters.reduce((sum, l) => sum + l.had, 0);
  return (
    <div className="sheet">
      <label className="block">
        <span className="sr-only">Letter set</span>
        <select className="field w-full font-semibold" value={tray.id} onChange={(e) => setChosen(e.target.value)}>
          {trays.map((t) => (
            <option key={t.id} value={t.id}>
              {t.name}
            </option>
          ))}
        </select>
      </label>
      <p className="mt-1 text-[13px] text-second">
        {tray.material}, <Length value={tray.height} unit={unit} withUnit /> high
        {tray.never_runs_out ? "; never runs out" : `; ${left} of ${had} left after this title`}
      </p>
      {tray.pages.length > 0 && (
        <p className="mt-1 text-[13px] text-second">Also spent by {tray.pages.map((p) => `“${p}”`).join(", ")}.</p>
      )}
      {!tray.never_runs_out && (
        <ul aria-label={`Letters of ${tray.name}`} className="mt-2 flex flex-wrap gap-x-2.5 gap-y-2">
          {tray.letters.map((l) => {
            const here = spent.get(l.letter) ?? 0;
            const rest = Math.max(0, l.left - here);
            return (
              <li
                key={l.letter}
                className="min-w-[26px] text-center"
                title={`${l.letter}: ${rest} left${here > 0 ? `, ${here} in this title` : ""}`}
              >
                <span
                  aria-hidden
                  className={`block font-extrabold text-[20px] leading-6 ${here > 0 ? "border-measure border-b-[3px]" : "border-transparent border-b-[3px]"}`}
                  style={{
                    fontFamily: "var(--font-heading)",
                    ...(rest > 0
                      ? { color: tray.colour ?? "#17263b" }
                      : { color: "transparent", WebkitTextStroke: "1px #51617a" }),
                  }}
                >
                  {l.letter}
                </span>
                <span
                  aria-hidden
                  className={`block text-[12.5px] tabular-nums ${rest === 0 ? "text-measure" : "text-second"}`}
                >
                  {rest === 0 ? "none" : rest}
                </span>
                <span className="sr-only">
                  {l.letter}: {rest} left{here > 0 ? `, ${here} in this title` : ""}
                </span>
              </li>
            );
          })}
        </ul>
      )}
      <p className="mt-2 flex flex-wrap gap-x-3 text-[12.5px] text-second">
        <span>
          <span aria-hidden className="mr-1 inline-block w-4 border-measure border-b-[3px] align-middle" />
          in this title
        </span>
        <span>outline: none left</span>
      </p>
    </div>
  );
}
