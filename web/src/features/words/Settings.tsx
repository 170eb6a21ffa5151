import { useState } from "react";
import type { LetterTrayDoc, TitleSetDoc, TitleSettingDoc } from "@/api/client";
import { Sentence } from "@/shared/ui/Length";
import { SetTitle } from "./SetTitle";

type Props = {
  title: TitleSetDoc;
  trays: readonly LetterTrayDoc[];
  shown: number;
  onShow: (n: number) => void;
  /** None where she may only look. */
  onTake: ((setting: TitleSettingDoc) => void) | undefined;
  onLeave: (() => void) | undefined;
};

/** So many are shown before she asks for more. */
const FIRST_SHOWN = 12;
const SMALL = { w: 190, h: 46 };

/** Every way to set the title, best first, each small, with what it is made of and what it leaves. */
export function Settings({ title, trays, shown, onShow, onTake, onLeave }: Props) {
  const [all, setAll] = useState(false);
  if (title.proposals.length === 0) {
    return (
      <section aria-labelledby="settings" className="sheet">
        <h2 id="settings" className="text-[17px]">
          No setting of this title
        </h2>
        <p role="status" className="mt-1 text-measure">
          <Sentence text={title.why?.text ?? "It can't be set in this space."} />
        </p>
        <p className="mt-1 text-second">
          Other words, more sets, or another space for it may do: all three are at hand beside the page.
        </p>
      </section>
    );
  }
  return (
    <section aria-labelledby="settings" className="sheet">
      <h2 id="settings" className="text-[17px]">
        Ways to set it, best first
      </h2>
      {title.why && (
        <p className="mt-1 text-measure">
          On straight lines it can’t be set. <Sentence text={title.why.text} />
        </p>
      )}
      <ol className="mt-1">
        {title.proposals.map((setting, n) => (
          <li
            hidden={!all && n >= FIRST_SHOWN && n !== shown}
            key={setting.name + JSON.stringify(setting.taken) + setting.manner}
            className={`grid grid-cols-[200px_minmax(0,1fr)_auto] items-center gap-x-3 border-hairline border-t py-1.5 max-sm:grid-cols-1 ${n === shown ? "bg-lit" : ""}`}
          >
            <Small setting={setting} space={title.space} trays={trays} />
            <div className="text-[13px]">
              <button
                type="button"
                aria-pressed={n === shown}
                onClick={() => onShow(n)}
                className="text-left font-bold text-[15px] underline decoration-hairline underline-offset-2"
              >
                {n + 1} {setting.name}
              </button>
              <span className="block text-second">
                {setting.made.length > 0 ? setting.made.join("; ") : "with letters as they are"}
              </span>
              {setting.hint && (
                <span className="block text-second">
                  <Sentence text={setting.hint} />
                </span>
              )}
              {setting.last.length > 0 && (
                <span className="block text-second">takes the last {setting.last.join("; ")}</span>
              )}
            </div>
            {setting.is_taken ? (
              <span className="flex items-center gap-2">
                <strong className="text-pin">taken</strong>
                {onLeave && (
                  <button type="button" className="button px-2 py-0.5" onClick={onLeave}>
                    Give it back
                  </button>
                )}
              </span>
            ) : (
              onTake && (
                <button
                  type="button"
                  className="button px-2 py-0.5"
                  aria-label={`Take it: way ${n + 1}, ${setting.name}`}
                  onClick={() => onTake(setting)}
                >
                  Take it
                </button>
              )
            )}
          </li>
        ))}
      </ol>
      {!all && title.proposals.length > FIRST_SHOWN && (
        <button type="button" className="button mt-1 px-2 py-0.5" onClick={() => setAll(true)}>
          Show all {title.proposals.length} ways
        </button>
      )}
    </section>
  );
}

function Small({
  setting,
  space,
  trays,
}: {
  setting: TitleSettingDoc;
  space: TitleSetDoc["space"];
  trays: readonly LetterTrayDoc[];
}) {
  const scale = Math.min(SMALL.w / space.w, SMALL.h / space.h);
  return (
    <svg width={space.w * scale} height={space.h * scale} aria-hidden className="bg-white">
      <SetTitle setting={setting} trays={trays} scale={scale} />
    </svg>
  );
}
