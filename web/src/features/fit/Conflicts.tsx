import type { ConflictDoc, FitDoc, PinDoc } from "@/api/client";
import { Sentence } from "@/shared/ui/Length";
import { PinWords, pinKey } from "./HeldBetween";

type ClashProps = { below: string; conflict: ConflictDoc; fit: FitDoc; onLetGo: (pin: PinDoc) => void };

/** What can't hold together, with a button for each pin that would solve it. */
export function ClashNote({ below, conflict, fit, onLetGo }: ClashProps) {
  const pins = conflict.pins.flatMap((n) => fit.pins?.[n] ?? []);
  return (
    <section role="alert" aria-labelledby="clash" className="sheet border-2 border-measure">
      <h2 id="clash">This can't hold</h2>
      <p className="mt-1">
        <Sentence text={conflict.text} />
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {pins.map((pin) => (
          <button key={pinKey(pin)} type="button" className="button" onClick={() => onLetGo(pin)}>
            Let go of the <PinWords pin={pin} fit={fit} />
          </button>
        ))}
      </div>
      <p className="mt-2 text-[13px] text-second">Below is {below}.</p>
    </section>
  );
}
