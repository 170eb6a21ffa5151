import { Fragment } from "react";
import type { LetterTrayDoc, TitleSettingDoc } from "@/api/client";

/** The share of a bold letter's size that its capitals take. */
const CAPITALS = 0.7;

type Props = {
  setting: TitleSettingDoc;
  trays: readonly LetterTrayDoc[];
  /** Pixels a unit. */
  scale: number;
  /** What is made out of another letter is underlined. */
  marked?: boolean;
};

/** A title as it will lie: each letter in its box, in its set's colour. The left top corner of its space is at 0. */
export function SetTitle({ setting, trays, scale, marked = false }: Props) {
  return (
    <g aria-hidden>
      {setting.lines.map((line, n) => {
        const tray = trays.find((t) => t.id === line.set);
        const size = ((tray?.height ?? 1) * scale) / CAPITALS;
        const baseline = line.baseline * scale;
        return line.letters.map((letter, at) => {
          const [x, w] = [letter.box.x * scale, letter.box.w * scale];
          return (
            <Fragment key={`${String(n)}-${String(at)}`}>
              <text
                x={x}
                y={baseline}
                fontSize={size}
                textLength={w}
                lengthAdjust="spacingAndGlyphs"
                fill={tray?.colour ?? "#17263b"}
                stroke="#ffffff"
                strokeWidth={0.6}
                paintOrder="stroke"
                style={{ fontFamily: "var(--font-heading)", fontWeight: 800 }}
              >
                {letter.letter}
              </text>
              {marked && letter.letter !== letter.of && (
                <rect x={x} y={baseline + 2} width={w} height={2.5} fill="#c2185b" />
              )}
            </Fragment>
          );
        });
      })}
    </g>
  );
}
