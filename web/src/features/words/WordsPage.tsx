import { useId, useRef } from "react";
import type { BoxDoc, FitDoc, LayoutDoc, LetterTrayDoc, TitleSetDoc, TitleSettingDoc, WrittenDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { PageSheet } from "@/shared/drawing/PageSheet";
import { Rulers } from "@/shared/drawing/Rulers";
import { Length } from "@/shared/ui/Length";
import { useWidth } from "@/shared/ui/useWidth";
import { regionOf } from "./model";
import { SetTitle } from "./SetTitle";

type Props = {
  fit: FitDoc;
  layout: LayoutDoc;
  title: TitleSetDoc | null;
  setting: TitleSettingDoc | undefined;
  trays: readonly LetterTrayDoc[];
  written: WrittenDoc | null;
};

const RULER = 26;
/** No higher than this, in pixels. */
const TALLEST = 330;

/** The part of the page where words lie, to scale, with the title and the writing as they will be. */
export function WordsPage({ fit, layout, title, setting, trays, written }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 600);
  const clip = useId();
  const unit = unitOf(fit);
  const inch = unit === "mm" ? 25.4 : 1;
  const { canvas } = layout;
  const whole = { w: canvas.page.w * canvas.pages, h: canvas.page.h };
  const spaces = [title?.space, written?.space].filter((s): s is BoxDoc => s !== undefined);
  const region = regionOf(spaces.length > 0 ? spaces : [{ x: 0, y: 0, ...whole }], whole, 0.75 * inch);
  const scale = Math.max(0.1, Math.min((width - RULER - 12) / region.w, (TALLEST - RULER) / region.h));
  const [w, h] = [region.w * scale, region.h * scale];
  return (
    <section aria-labelledby="words-on-page" className="min-w-0">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="words-on-page" className="text-[17px]">
          The words on the page
        </h2>
        {title && (
          <span className="text-[13px] text-second">
            space for the title: <Length value={title.space.w} unit={unit} /> ×{" "}
            <Length value={title.space.h} unit={unit} withUnit />
          </span>
        )}
      </div>
      <div ref={frame}>
        <svg
          width={RULER + w + 2}
          height={RULER + h + 2}
          role="img"
          aria-label={saidOf(setting, written)}
          className="mx-auto block"
        >
          <defs>
            <clipPath id={clip}>
              <rect width={RULER + w + 1} height={RULER + h + 1} />
            </clipPath>
            <clipPath id={`${clip}-part`}>
              <rect x={region.x * scale} y={region.y * scale} width={w} height={h} />
            </clipPath>
          </defs>
          <g clipPath={`url(#${clip})`}>
            <g transform={`translate(${-region.x * scale} ${-region.y * scale})`}>
              <g clipPath={`url(#${clip}-part)`} transform={`translate(${RULER} ${RULER})`}>
                <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
                {title && <Space box={title.space} scale={scale} />}
                {title && setting && (
                  <g transform={`translate(${title.space.x * scale} ${title.space.y * scale})`}>
                    <SetTitle setting={setting} trays={trays} scale={scale} marked />
                    <FirstLetters setting={setting} scale={scale} />
                  </g>
                )}
                {written && <Writing written={written} scale={scale} />}
              </g>
            </g>
          </g>
          <PartRulers region={region} canvas={canvas} unit={unit} scale={scale} />
        </svg>
      </div>
    </section>
  );
}

/** The rulers of the whole page, of which only the part beside the region is seen. */
function PartRulers({
  region,
  canvas,
  unit,
  scale,
}: {
  region: BoxDoc;
  canvas: LayoutDoc["canvas"];
  unit: "in" | "mm";
  scale: number;
}) {
  const id = useId();
  const [w, h] = [region.w * scale, region.h * scale];
  const shift = { x: -region.x * scale, y: -region.y * scale };
  return (
    <g aria-hidden>
      <clipPath id={`${id}-top`}>
        <rect x={RULER - shift.x - 1} y={0} width={w + 2} height={RULER} />
      </clipPath>
      <clipPath id={`${id}-left`}>
        <rect x={0} y={RULER - shift.y - 1} width={RULER} height={h + 2} />
      </clipPath>
      <g transform={`translate(${shift.x} 0)`} clipPath={`url(#${id}-top)`}>
        <Rulers canvas={canvas} unit={unit} scale={scale} at={RULER} />
      </g>
      <g transform={`translate(0 ${shift.y})`} clipPath={`url(#${id}-left)`}>
        <Rulers canvas={canvas} unit={unit} scale={scale} at={RULER} />
      </g>
    </g>
  );
}

function saidOf(setting: TitleSettingDoc | undefined, written: WrittenDoc | null) {
  const lines = setting?.lines.map((l) => l.letters.map((letter) => letter.letter).join("")) ?? [];
  return `The title in ${lines.length} ${lines.length === 1 ? "line" : "lines"}${written ? `, and ${written.lines.length} lines of writing` : ""}, to scale`;
}

function Space({ box, scale }: { box: BoxDoc; scale: number }) {
  return (
    <rect
      x={box.x * scale}
      y={box.y * scale}
      width={box.w * scale}
      height={box.h * scale}
      fill="none"
      stroke="#c2185b"
      strokeWidth={1.2}
      strokeDasharray="5 4"
    />
  );
}

/** The three letters of each line that are laid first, flagged in their order. */
function FirstLetters({ setting, scale }: { setting: TitleSettingDoc; scale: number }) {
  return setting.lines.map((line, n) =>
    line.order.slice(0, 3).map((at, turn) => {
      const letter = line.letters[at];
      if (!letter) return null;
      const [x, y] = [0, letter.box.h * scale + 5];
      const leaning = `rotate(${letter.turn ?? 0} ${(letter.box.w * scale) / 2} ${(letter.box.h * scale) / 2})`;
      return (
        <g
          key={`${String(n)}-${String(at)}`}
          transform={`translate(${letter.box.x * scale} ${letter.box.y * scale}) ${leaning}`}
        >
          <path d={`M${x} ${y - 3}V${y + 3}`} stroke="#c2185b" strokeWidth={1.5} />
          <rect x={x - 1} y={y} width={13} height={13} rx={2} fill="#c2185b" />
          <text x={x + 5.5} y={y + 10} textAnchor="middle" fontSize={10} fontWeight={700} fill="#ffffff">
            {turn + 1}
          </text>
        </g>
      );
    }),
  );
}

/** The writing, line by line; what has no room hangs out below its space. */
function Writing({ written, scale }: { written: WrittenDoc; scale: number }) {
  const { space, lines, widths, room, kept, kept_text, pitch } = written;
  const step = pitch * scale;
  const fits = Math.max(0, room - kept);
  const [x, top] = [space.x * scale, space.y * scale];
  // The kept line stands under what fits; what is over comes after the space.
  const rowOf = (n: number) => (n < fits ? n : n + kept);
  const row = (n: number, text: string, over: boolean, width?: number, keptLine = false) => (
    <g key={`${String(n)}-${text}`}>
      <rect
        x={x}
        y={top + n * step}
        width={space.w * scale}
        height={step}
        fill={over ? "#fbe3ec" : keptLine ? "#d9efe9" : "#ffffff"}
      />
      <path d={`M${x} ${top + (n + 1) * step}h${space.w * scale}`} stroke="#c3ccd2" strokeWidth={0.8} />
      <text
        x={x + 2}
        y={top + (n + 0.76) * step}
        fontSize={step * 0.72}
        fontStyle="italic"
        {...(width ? { textLength: Math.max(1, width * scale - 4), lengthAdjust: "spacingAndGlyphs" } : {})}
        fill={over ? "#c2185b" : keptLine ? "#0b7d69" : "#17263b"}
      >
        {text}
      </text>
    </g>
  );
  const last = Math.min(lines.length, fits);
  return (
    <g aria-hidden>
      <rect x={x} y={top} width={space.w * scale} height={space.h * scale} fill="#ffffff" stroke="#51617a" />
      {lines.map((text, n) => row(rowOf(n), text, n >= fits, widths[n]))}
      {kept > 0 && row(last, kept_text, false, undefined, true)}
      <rect x={x} y={top} width={space.w * scale} height={space.h * scale} fill="none" stroke="#51617a" />
    </g>
  );
}
