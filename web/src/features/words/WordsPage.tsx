import { useId, useRef } from "react";
import type {
  BoxDoc,
  FitDoc,
  LayoutDoc,
  LetterTrayDoc,
  LineSlotDoc,
  TitleSetDoc,
  TitleSettingDoc,
  WrittenDoc,
} from "@/api/client";
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

/** The writing, line by line, each in its slot; what has no room hangs out below its space. */
function Writing({ written, scale }: { written: WrittenDoc; scale: number }) {
  const { space, slots, lines, widths, room, kept, kept_text, pitch } = written;
  const step = pitch * scale;
  const fits = Math.max(0, room - kept);
  const [x, top] = [space.x * scale, space.y * scale];
  // What is over comes after the space.
  const beyond = (n: number) => ({ x: 0, y: space.h + (n - fits) * pitch, w: space.w, turn: 0 });
  const row = (slot: LineSlotDoc, text: string, look: Look, width?: number) => (
    <g
      key={`${slot.x} ${slot.y} ${slot.turn}`}
      transform={`translate(${x + slot.x * scale} ${top + slot.y * scale}) rotate(${slot.turn})`}
    >
      <rect width={slot.w * scale} height={step} fill={look.ground} />
      <path d={`M0 ${step}h${slot.w * scale}`} stroke="#c3ccd2" strokeWidth={0.8} />
      <text
        x={2}
        y={0.76 * step}
        fontSize={step * 0.72}
        {...(written.type ? { fontWeight: written.type === "plain" ? 400 : 700 } : { fontStyle: "italic" })}
        {...(width ? { textLength: Math.max(1, width * scale - 4), lengthAdjust: "spacingAndGlyphs" } : {})}
        fill={look.ink}
      >
        {text}
      </text>
    </g>
  );
  const last = slots[Math.min(lines.length, fits)];
  const inOneBlock = slots.every((s) => s.turn === 0);
  return (
    <g aria-hidden>
      {inOneBlock && <rect x={x} y={top} width={space.w * scale} height={space.h * scale} fill="#ffffff" />}
      {lines.map((text, n) => {
        const slot = n < fits ? slots[n] : undefined;
        return slot ? row(slot, text, PLAIN, widths[n]) : row(beyond(n), text, OVER, widths[n]);
      })}
      {kept > 0 && last && row(last, kept_text, KEPT)}
      <rect x={x} y={top} width={space.w * scale} height={space.h * scale} fill="none" stroke="#51617a" />
    </g>
  );
}

type Look = { ground: string; ink: string };
const PLAIN: Look = { ground: "#ffffff", ink: "#17263b" };
const OVER: Look = { ground: "#fbe3ec", ink: "#c2185b" };
const KEPT: Look = { ground: "#d9efe9", ink: "#0b7d69" };
