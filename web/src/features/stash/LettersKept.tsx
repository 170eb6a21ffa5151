import { useState } from "react";
import type { LettersDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { rulerText, toTicks } from "@/shared/lengths/length";
import { LengthField } from "@/shared/ui/LengthField";
import { added, withCount } from "./letters";

type Props = {
  letters: LettersDoc | null | undefined;
  unit: Unit;
  mayChange: boolean;
  onChange: (letters: LettersDoc) => void;
};

const CASES = { upper: "capitals", lower: "small letters", both: "both" } as const;
const STYLES = ["narrow", "normal", "wide", "round"] as const;
const MATERIALS = ["sticker", "chipboard", "wood", "foam", "rub-on", "stamp", "die", "print"] as const;
const NEVER_RUN_OUT = new Set(["stamp", "die", "print"]);

/** What a letter set has: its style and height, how many are left of each, and what she measured. */
export function LettersKept({ letters, unit, mayChange, onChange }: Props) {
  const now: LettersDoc = letters ?? { case: "upper", height: unit === "mm" ? 20 : 0.75 };
  const set = (change: Partial<LettersDoc>) => onChange({ ...now, ...change });
  const left = Object.entries(now.left ?? {});
  const measured = Object.entries(now.measured ?? {});
  return (
    <section aria-labelledby="letters-kept" className="grid gap-2">
      <h3 id="letters-kept">Letters</h3>
      <fieldset disabled={!mayChange} className="grid gap-2">
        <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1.5">
          <Choice label="Case" value={now.case} options={Object.entries(CASES)} onChoose={(v) => set({ case: v })} />
          <Choice
            label="Style"
            value={now.style ?? "normal"}
            options={STYLES.map((s) => [s, s])}
            onChoose={(v) => set({ style: v })}
          />
          <Choice
            label="What they are"
            value={now.material ?? "sticker"}
            options={MATERIALS.map((m) => [m, m])}
            onChoose={(v) => set({ material: v })}
          />
          <LengthField
            label="Capitals are high"
            inRow
            value={now.height}
            unit={unit}
            least={0.05}
            most={unit === "mm" ? 1200 : 48}
            onCommit={(height) => set({ height })}
          />
        </div>
        {NEVER_RUN_OUT.has(now.material ?? "sticker") ? (
          <p className="text-second">These never run out: none is counted.</p>
        ) : (
          <>
            <p className="text-second">How many are left of each: tap − as you use one up, + to put one back.</p>
            <ul className="flex flex-wrap gap-1.5">
              {left.map(([letter, count]) => (
                <li key={letter} className="flex items-center gap-1 border border-hairline px-1">
                  <button
                    type="button"
                    className="button px-1.5 py-0"
                    aria-label={`One ${letter} less`}
                    disabled={count === 0}
                    onClick={() => set({ left: withCount(now.left, letter, count - 1) })}
                  >
                    −
                  </button>
                  <strong className="w-5 text-center">{letter}</strong>
                  <span className="w-5 text-right tabular-nums">{count}</span>
                  <button
                    type="button"
                    className="button px-1.5 py-0"
                    aria-label={`One ${letter} more`}
                    onClick={() => set({ left: withCount(now.left, letter, count + 1) })}
                  >
                    +
                  </button>
                </li>
              ))}
            </ul>
            <Typed
              label="Add letters as they lie on the sheet"
              hint="AAABBC&"
              button="Add them"
              onEnter={(text) => set({ left: added(now.left, text) })}
            />
          </>
        )}
        <p className="text-second">
          Widths go by the style. Measure two or three letters, and all others follow.
          {measured.length > 0 &&
            ` Measured: ${measured.map(([c, w]) => `${c} ${rulerText(toTicks(w, unit), unit)}`).join(", ")}.`}
        </p>
        <Measured unit={unit} onMeasured={(letter, width) => set({ measured: { ...now.measured, [letter]: width } })} />
      </fieldset>
    </section>
  );
}

function Choice({
  label,
  value,
  options,
  onChoose,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChoose: (value: string) => void;
}) {
  return (
    <label className="contents">
      <span className="text-second">{label}</span>
      <select className="field justify-self-start" value={value} onChange={(e) => onChoose(e.target.value)}>
        {options.map(([name, says]) => (
          <option key={name} value={name}>
            {says}
          </option>
        ))}
      </select>
    </label>
  );
}

function Typed({
  label,
  hint,
  button,
  onEnter,
}: {
  label: string;
  hint: string;
  button: string;
  onEnter: (text: string) => void;
}) {
  const [text, setText] = useState("");
  const enter = () => {
    if (text.trim()) onEnter(text);
    setText("");
  };
  return (
    <label className="flex flex-wrap items-center gap-2">
      <span className="text-second">{label}</span>
      <input
        className="field min-w-0 flex-1 px-2"
        placeholder={hint}
        maxLength={400}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => e.key === "Enter" && enter()}
      />
      <button type="button" className="button px-2 py-0.5" onClick={enter}>
        {button}
      </button>
    </label>
  );
}

function Measured({ unit, onMeasured }: { unit: Unit; onMeasured: (letter: string, width: number) => void }) {
  const [letter, setLetter] = useState("");
  const one = [...letter.trim()];
  return (
    <div className="flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-1.5">
        <span className="text-second">I measured</span>
        <input
          className="field w-12 px-2 text-center"
          maxLength={2}
          placeholder="N"
          value={letter}
          onChange={(e) => setLetter(e.target.value)}
        />
      </label>
      {one.length === 1 && (
        <LengthField
          key={letter}
          label="wide"
          value={unit === "mm" ? 15 : 0.5}
          unit={unit}
          least={0.01}
          most={unit === "mm" ? 1200 : 48}
          onCommit={(width) => onMeasured(one[0] ?? "", width)}
        />
      )}
    </div>
  );
}
