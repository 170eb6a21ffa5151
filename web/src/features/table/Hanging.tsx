import { useMemo, useRef, useState } from "react";
import type { PageCard } from "@/api/client";
import { dayOf, daysBetween } from "@/shared/ui/days";
import { useWidth } from "@/shared/ui/useWidth";
import { hang } from "./hanging";
import { drawnSize, PageOnTable, SCALE } from "./PageOnTable";
import { TAPE_FOOT, TAPE_HEIGHT, TapeOfDays } from "./TapeOfDays";
import { type TimeTape, timeTape } from "./timeTape";

/** A screen narrower than this has no room for threads: its pages lie in a list. */
const LEAST_WIDTH = 700;
/** From here on the folded weeks have a column of their own. */
const WIDE = 1000;
const FOLDED = 276;
const DAY = 84;
/** The words under a page are at least so wide, and so high. */
const TEXT = { w: 132, h: 112 };
const ROWS = 3;
/** At either side of the pages. */
const SIDE = 12;
/** From the tape to the first row. */
const THREAD = 40;
/** Later pages that are shown before they are unfolded. */
const MOST_FOLDED = 5;

type Props = {
  pages: readonly PageCard[];
  today: Date;
  /** Pages without a date: they lie where there is room. */
  undated: React.ReactNode;
  /** Whether there is room for them beside the tape. */
  undatedBeside: boolean;
};

/** The tape of days, and each page hanging from its due day; later weeks are folded at half scale. */
export function Hanging({ pages, today, undated, undatedBeside }: Props) {
  const frame = useRef<HTMLElement>(null);
  const width = useWidth(frame, 1280);
  const folded = width >= WIDE ? FOLDED : 0;
  const beside = folded > 0 && undatedBeside;
  const shown = Math.max(5, Math.floor((width - folded) / DAY) - 1);
  const tape = useMemo(() => timeTape(pages, today, shown), [pages, today, shown]);
  return (
    <section ref={frame} aria-label="Pages by due date" className="min-w-0">
      <h2 className="sr-only">Pages by due date</h2>
      {width < LEAST_WIDTH ? (
        <Listed tape={tape} today={today} />
      ) : (
        <Threads tape={tape} today={today} width={width} folded={folded} undated={beside ? undated : null} />
      )}
      {!beside && undated && <div className="px-[18px] pt-4">{undated}</div>}
    </section>
  );
}

/** One below the other, the most urgent first. */
function Listed({ tape, today }: { tape: TimeTape; today: Date }) {
  const all = [...tape.overdue, ...tape.near, ...tape.folds.flatMap((f) => f.pages)];
  return (
    <ul className="grid gap-4 border-tape border-t-[10px] px-[18px] pt-4">
      {all.map((page) => (
        <li key={page.id}>
          <PageOnTable page={page} today={today} scale={SCALE * 0.8} beside />
        </li>
      ))}
    </ul>
  );
}

type ThreadsProps = { tape: TimeTape; today: Date; width: number; folded: number; undated: React.ReactNode };

function Threads({ tape, today, width, folded, undated }: ThreadsProps) {
  const room = width - folded;
  const each = room / (tape.days.length + 1);
  const late = each;
  const wall = useMemo(() => onTheWall(tape, today, room, each), [tape, today, room, each]);
  const over = wall.left;
  const later = tape.folds.flatMap((f) => f.pages);
  return (
    <>
      <TapeOfDays tape={tape} late={late} each={each} folded={folded} />
      <div className="flex items-start">
        <div className="relative shrink-0" style={{ width: room, height: wall.height }}>
          <svg
            aria-hidden="true"
            width={room}
            height={wall.height}
            className="absolute inset-x-0"
            style={{ top: TAPE_FOOT - TAPE_HEIGHT }}
          >
            {wall.cards.map(({ page, thread, day, top, late: isLate }) => (
              <g key={page.id} stroke={isLate ? "#c2185b" : "var(--color-ink)"} fill="none">
                <path d={`M${day} 0V12H${thread}V${top + TAPE_HEIGHT - TAPE_FOOT}`} />
                <rect
                  x={thread - 5}
                  y={top + TAPE_HEIGHT - TAPE_FOOT - 9}
                  width={10}
                  height={10}
                  rx={1}
                  stroke="none"
                  fill={isLate ? "#c2185b" : "var(--color-ink)"}
                />
              </g>
            ))}
          </svg>
          <ul>
            {wall.cards.map(({ page, left, top, wide }) => (
              <li key={page.id} className="absolute" style={{ left, top, width: wide }}>
                <PageOnTable page={page} today={today} />
              </li>
            ))}
          </ul>
        </div>
        {folded > 0 && (
          <div className="grid min-w-0 flex-1 content-start gap-4 pt-2 pr-[14px]">
            {later.length > 0 && <Folded pages={later} today={today} />}
            {undated}
          </div>
        )}
      </div>
      {over.length > 0 && <Flat title={`${over.length} more that are due soon`} pages={over} today={today} />}
      {folded === 0 && later.length > 0 && <Flat title="Later" pages={later} today={today} />}
    </>
  );
}

type OnWall = { page: PageCard; left: number; top: number; wide: number; thread: number; day: number; late: boolean };

/** Where each page hangs under the tape, and what finds no room. */
function onTheWall(tape: TimeTape, today: Date, room: number, each: number) {
  const pages = [...tape.overdue, ...tape.near];
  const cards = pages.map((page) => {
    const { w, h } = drawnSize(page);
    const away = Math.max(-1, daysBetween(today, dayOf(page.due ?? "")));
    return { id: page.id, picture: w + 2, height: h, text: TEXT.w, day: (away + 1.5) * each - SIDE, page };
  });
  const { hung, left } = hang(cards, room - 2 * SIDE, ROWS);
  const rows = Math.max(0, ...hung.map((h) => h.row + 1));
  const tops: number[] = [THREAD];
  for (let row = 0; row < rows; row++) {
    const high = Math.max(0, ...hung.filter((h) => h.row === row).map((h) => of(h.id).height));
    tops.push((tops[row] ?? 0) + high + TEXT.h);
  }
  function of(id: string) {
    return cards.find((c) => c.id === id) as (typeof cards)[number];
  }
  return {
    cards: hung.map((h): OnWall => {
      const card = of(h.id);
      const late = tape.overdue.includes(card.page);
      return {
        page: card.page,
        left: h.left + SIDE,
        top: (tops[h.row] ?? 0) + (h.row > 0 ? 12 : 0),
        wide: Math.max(card.picture, TEXT.w),
        thread: h.thread + SIDE,
        day: card.day + SIDE,
        late,
      };
    }),
    left: left.map((id) => of(id).page),
    height: (tops[rows] ?? THREAD) + (rows > 1 ? 12 : 0),
  };
}

type Cards = { pages: readonly PageCard[]; today: Date };

/** What is due in the weeks after the tape's days, at half the scale. */
function Folded({ pages, today }: Cards) {
  const [open, setOpen] = useState(false);
  const shown = open ? pages : pages.slice(0, MOST_FOLDED);
  return (
    <section aria-label="Later" className="grid gap-3">
      <div className="flex items-center justify-between">
        <h2 className="text-[16px]">
          Later <span className="font-body font-normal text-[13.5px] text-second">half the scale</span>
        </h2>
        {pages.length > MOST_FOLDED && (
          <button type="button" className="button" aria-expanded={open} onClick={() => setOpen((o) => !o)}>
            {open ? "Show fewer" : `Show all ${pages.length}`}
          </button>
        )}
      </div>
      <ul className="grid gap-3">
        {shown.map((page) => (
          <li key={page.id}>
            <PageOnTable page={page} today={today} scale={SCALE / 2} beside />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** So many of them are shown at first. */
const AT_FIRST = 12;

/** Pages that hang nowhere: in rows, at half scale. */
function Flat({ title, pages, today }: Cards & { title: string }) {
  const [all, setAll] = useState(false);
  const shown = all ? pages : pages.slice(0, AT_FIRST);
  return (
    <section aria-label={title} className="px-[18px] pt-3">
      <h2 className="mb-2 text-[16px]">{title}</h2>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-4">
        {shown.map((page) => (
          <li key={page.id}>
            <PageOnTable page={page} today={today} scale={SCALE / 2} beside />
          </li>
        ))}
      </ul>
      {shown.length < pages.length && (
        <button type="button" className="button mt-3" onClick={() => setAll(true)}>
          Show all {pages.length}
        </button>
      )}
    </section>
  );
}
