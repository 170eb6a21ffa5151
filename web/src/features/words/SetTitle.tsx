import type { BoxDoc, LetterTrayDoc, TitleSettingDoc } from "@/api/client";

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
          const { x, y, w, h } = scaled(letter.box, scale);
          const bent = setting.manner !== "lines" && setting.manner !== "mixed";
          // On a bent line each letter has a baseline of its own: what hangs below it stays below.
          const below = (tray?.letters.find((l) => l.letter === letter.of)?.below ?? 0) * scale;
          const foot = bent ? y + h - Math.min(below, h / 2) : baseline;
          return (
            <g
              key={`${String(n)}-${String(at)}`}
              transform={letter.turn ? `rotate(${letter.turn} ${x + w / 2} ${y + h / 2})` : undefined}
            >
              <text
                x={x}
                y={foot}
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
                <rect x={x} y={foot + 2} width={w} height={2.5} fill="#c2185b" />
              )}
            </g>
          );
        });
      })}
    </g>
  );
}

const scaled = (box: BoxDoc, scale: number) => ({
  x: box.x * scale,
  y: box.y * scale,
  w: box.w * scale,
  h: box.h * scale,
});
