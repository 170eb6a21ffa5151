import type { BoxDoc, LayoutDoc, PageCureDoc, PageFindingDoc } from "@/api/client";
import { PageSheet } from "@/shared/drawing/PageSheet";
import { Sentence } from "@/shared/ui/Length";
import { layoutWith, placeOf } from "./model";

type Props = {
  finding: PageFindingDoc;
  letter: string;
  cure: PageCureDoc;
  layout: LayoutDoc;
  onKeep: (() => void) | undefined;
  onLeave: () => void;
};

/** Each picture's size, in pixels. */
const WIDE = 300;
const HIGH = 190;

/** The place of a finding as it is, and as a cure would have it, side by side at one scale. */
export function BeforeAfter({ finding, letter, cure, layout, onKeep, onLeave }: Props) {
  const place = around([placeOf(finding, layout), cure.box ?? undefined], layout);
  return (
    <section aria-labelledby="tried" className="sheet">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <span className="grid h-6 min-w-6 place-items-center rounded-[3px] bg-measure px-1 font-bold text-[13px] text-sheet">
          {letter}
        </span>
        <h2 id="tried" className="text-[17px]">
          <Sentence text={cure.text} />
        </h2>
        <span className="ml-auto flex gap-2">
          <button type="button" className="button" onClick={onLeave}>
            Leave it as it is
          </button>
          {onKeep && (
            <button type="button" className="button button-main" onClick={onKeep}>
              Keep it
            </button>
          )}
        </span>
      </div>
      <div className="flex flex-wrap gap-3">
        <Look name="As it is" layout={layout} place={place} mark={placeOf(finding, layout)} colour="#c2185b" />
        <Look
          name="As tried"
          layout={layoutWith(layout, cure)}
          place={place}
          mark={cure.box ?? undefined}
          colour="#0b7d69"
        />
      </div>
    </section>
  );
}

/** A box round all of these, with room, in the pictures' shape. */
function around(places: readonly (BoxDoc | undefined)[], layout: LayoutDoc): BoxDoc {
  const all = places.filter((p): p is BoxDoc => p !== undefined);
  const { page, pages } = layout.canvas;
  const canvas = { x: 0, y: 0, w: page.w * pages, h: page.h };
  const boxes = all.length > 0 ? all : [canvas];
  const l = Math.min(...boxes.map((b) => b.x));
  const t = Math.min(...boxes.map((b) => b.y));
  const r = Math.max(...boxes.map((b) => b.x + b.w));
  const b = Math.max(...boxes.map((b) => b.y + b.h));
  const room = page.h / 10;
  const h = Math.min(canvas.h, Math.max(b - t + 2 * room, ((r - l + 2 * room) * HIGH) / WIDE));
  const w = (h * WIDE) / HIGH;
  return { x: (l + r) / 2 - w / 2, y: (t + b) / 2 - h / 2, w, h };
}

type LookProps = { name: string; layout: LayoutDoc; place: BoxDoc; mark: BoxDoc | undefined; colour: string };

function Look({ name, layout, place, mark, colour }: LookProps) {
  const scale = WIDE / place.w;
  return (
    <figure>
      <svg
        width={WIDE}
        height={HIGH}
        viewBox={`${place.x * scale} ${place.y * scale} ${WIDE} ${HIGH}`}
        role="img"
        aria-label={name}
        className="block border border-hairline"
      >
        <PageSheet canvas={layout.canvas} blocks={layout.blocks} scale={scale} />
        {mark && (
          <rect
            x={mark.x * scale}
            y={mark.y * scale}
            width={mark.w * scale}
            height={mark.h * scale}
            fill={colour}
            fillOpacity={0.15}
            stroke={colour}
            strokeWidth={2}
            strokeDasharray="6 3"
          />
        )}
      </svg>
      <figcaption className="text-[13px]">
        <strong>{name}.</strong>
      </figcaption>
    </figure>
  );
}
