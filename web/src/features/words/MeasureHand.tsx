import { useState } from "react";
import type { HandDoc } from "@/api/client";
import { useSaveMe } from "@/features/people/useSaveMe";
import type { Unit } from "@/shared/lengths/length";
import { LengthField } from "@/shared/ui/LengthField";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";

type Props = {
  sentence: string;
  unit: Unit;
  hands: readonly HandDoc[];
  onMeasured: (hand: HandDoc) => void;
  onClose: () => void;
};

/** One sentence, written as she always writes, and measured: from then on every text is counted in her own hand. */
export function MeasureHand({ sentence, unit, hands, onMeasured, onClose }: Props) {
  const { me, save } = useSaveMe();
  const [name, setName] = useState("");
  const [width, setWidth] = useState(unit === "mm" ? 160 : 6.5);
  const [pitch, setPitch] = useState(unit === "mm" ? 6 : 0.25);
  const keep = () => {
    const hand: HandDoc = { unit, name: name.trim(), sentence: width, pitch };
    const others = hands.filter((h) => h.name !== hand.name);
    if (me) save.mutate({ name: me.name ?? "", defaults: { ...me.defaults, hands: [...others, hand] } });
    onMeasured(hand);
    onClose();
  };
  return (
    <Sheet title="Measure my hand" width="middle" beside onClose={onClose}>
      <div className="grid gap-3">
        <p>Write this once, with the pen and in the size that you use on pages, on one line of scrap paper:</p>
        <p className="border-ink border-l-4 pl-3 text-[17px]">{sentence}</p>
        <p>Then measure it from its first letter to its last, and from one of your lines to the next.</p>
        <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
          <label className="contents">
            <span className="text-second">Which pen</span>
            <input
              className="field px-2"
              value={name}
              maxLength={80}
              placeholder="Fine pen"
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <LengthField
            label="The sentence is"
            inRow
            value={width}
            unit={unit}
            least={unit === "mm" ? 10 : 0.5}
            most={unit === "mm" ? 1000 : 40}
            onCommit={setWidth}
          />
          <LengthField
            label="From line to line"
            inRow
            value={pitch}
            unit={unit}
            least={unit === "mm" ? 1 : 0.0625}
            most={unit === "mm" ? 50 : 2}
            onCommit={setPitch}
          />
        </div>
        <p className="text-[13px] text-second">A hand is never the same twice: 4 in 100 are added to every line.</p>
        <div className="flex gap-2">
          <CloseSheet />
          <button type="button" className="button button-first" disabled={!name.trim()} onClick={keep}>
            Keep this hand
          </button>
        </div>
      </div>
    </Sheet>
  );
}
