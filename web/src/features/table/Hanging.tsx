import type { PageCard } from "@/api/client";
import { PageOnTable } from "./PageOnTable";
import { type Mark, timeTape } from "./timeTape";

/** The tape of days, today at its left end, and each page hanging from its due day. It goes on in a further row where the screen is narrow. */
export function Hanging({ pages, today }: { pages: readonly PageCard[]; today: Date }) {
  const marks = timeTape(pages, today);
  return (
    <section aria-label="Pages by due date">
      <h2 className="sr-only">Pages by due date</h2>
      <ol className="flex flex-wrap gap-y-4">
        {marks.map((mark) => (
          <li key={keyOf(mark)} className={`flex flex-col ${"pages" in mark && mark.pages.length ? "" : "flex-1"}`}>
            <DayMark mark={mark} />
            {"pages" in mark && mark.pages.length > 0 && (
              <div className="grid gap-3 px-3">
                {mark.pages.map((page, n) => (
                  <div key={page.id}>
                    <span aria-hidden="true" className={`ml-6 block w-px bg-ink ${n === 0 ? "h-6" : "h-3"}`} />
                    <span aria-hidden="true" className="ml-4 block h-3 w-4 rounded-[2px] bg-ink" />
                    <PageOnTable page={page} today={today} />
                  </div>
                ))}
              </div>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

function keyOf(mark: Mark): string {
  return mark.kind === "overdue" ? "overdue" : mark.kind === "day" ? `d${mark.away}` : `f${mark.from.getTime()}`;
}

const TICKS = "repeating-linear-gradient(90deg, var(--color-tape-ink) 0 1px, transparent 1px 12.5%)";

function DayMark({ mark }: { mark: Mark }) {
  const box =
    "relative flex h-[46px] min-w-[52px] items-center border-ink border-b-2 border-l bg-tape px-2 text-tape-ink";
  if (mark.kind === "overdue") {
    return (
      <div className={`${box} border-l-0 font-bold`} style={{ background: "#ffb1a1" }}>
        overdue
      </div>
    );
  }
  if (mark.kind === "folded") {
    return (
      <div className={`${box} min-w-[84px] text-[13px]`} style={{ borderLeftStyle: "dashed" }}>
        {mark.days} days
      </div>
    );
  }
  const { day, away } = mark;
  const weekend = day.getDay() === 0 || day.getDay() === 6;
  const month = away === 0 || day.getDate() === 1 ? day.toLocaleDateString("en", { month: "short" }) : "";
  return (
    <div className={`${box} gap-1 whitespace-nowrap ${away === 0 ? "border-l-0" : ""}`}>
      <span aria-hidden="true" className="absolute inset-x-0 top-0 h-[6px] opacity-60" style={{ background: TICKS }} />
      {away === 0 && <span className="rounded-[2px] bg-ink px-1.5 font-semibold text-[12px] text-sheet">today</span>}
      <span className={`text-[15px] ${weekend ? "font-bold" : ""}`}>
        {day.getDate()}
        {month && ` ${month}`}
      </span>
      <span className="text-[12px]">{day.toLocaleDateString("en", { weekday: "short" }).slice(0, 2)}</span>
    </div>
  );
}
