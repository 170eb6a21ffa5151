import { Link } from "@tanstack/react-router";
import { memo, useRef } from "react";
import type { MakerView, SeasonCallView, SeasonView } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { dayOf } from "@/shared/ui/days";
import { useWidth } from "@/shared/ui/useWidth";
import { COLUMN, namedDays, seasonTape, type SeasonTape as Tape } from "./tape";
import { useTaking } from "./useSeason";
import { longDay, shortDay } from "./words";

/** Narrower than this there is no room for a tape: the calls are listed. */
const ROOM = 640;
const TAPE_HIGH = 34;
/** A row's height: the name, its makers, and a button. */
const columnHigh = (call: SeasonCallView, dated: boolean) =>
  44 +
  Math.max(1, call.makers.length) * 21 +
  call.makers.filter((m) => m.late_days).length * 17 +
  (call.open ? 38 : 0) +
  (dated ? 17 : 0);
const rowHigh = (tape: Tape, row: number) =>
  Math.max(...tape.hung.filter((h) => h.row === row).map((h) => columnHigh(h.call, tape.rows > 1)), 60);

/** The team's calls on a quiet tape: what is due when, who makes it, and how far she is. */
export function SeasonTape({ season, current }: { season: SeasonView; current?: string | undefined }) {
  const ref = useRef<HTMLDivElement>(null);
  const width = useWidth(ref, 0);
  const today = dayOf(season.today);
  return (
    <div ref={ref} className="min-w-0">
      {width > 0 && width < ROOM && <CallList calls={season.calls} current={current} />}
      {width >= ROOM && <WideTape tape={seasonTape(season.calls, today, width)} width={width} current={current} />}
    </div>
  );
}

function WideTape({ tape, width, current }: { tape: Tape; width: number; current?: string | undefined }) {
  const tops: number[] = [];
  let top = TAPE_HIGH + 26;
  for (let row = 0; row < tape.rows; row++) {
    tops.push(top);
    top += rowHigh(tape, row);
  }
  const topOf = (row: number) => tops[row] ?? TAPE_HIGH;
  return (
    <div className="relative" style={{ height: top }}>
      <svg width={width} height={top} className="absolute inset-0" aria-hidden="true">
        <rect x="0.5" y="0.5" width={width - 1} height={TAPE_HIGH} className="fill-sheet stroke-ink" />
        <rect x="0.5" y="0.5" width={tape.today} height={TAPE_HIGH} className="fill-ink/5 stroke-ink" />
        <path d={ticks(tape)} className="stroke-ink" />
        {tape.hung.map((h) => (
          <g key={h.call.id}>
            {h.row === 0 && (
              <path
                d={`M${h.day} ${TAPE_HIGH + 8}L${h.left + (COLUMN - 6) / 2} ${topOf(0) - 2}`}
                className={h.call.id === current ? "stroke-pin" : "stroke-second"}
              />
            )}
            {h.call.id === current ? (
              <path d={`M${h.day - 7} ${TAPE_HIGH + 1}h14l-7 12z`} className="fill-pin" />
            ) : (
              <rect x={h.day - 4.5} y={TAPE_HIGH + 5} width="9" height="7" className="fill-ink" />
            )}
          </g>
        ))}
      </svg>
      {namedDays(tape).map(({ day, at }) => {
        const middle = (at + 0.5) * tape.each;
        if (Math.abs(middle - tape.today) < 30 || middle > width - 30) return null;
        const month = day.getDate() <= 7 || at < 7 ? ` ${day.toLocaleDateString("en", { month: "short" })}` : "";
        return (
          <span
            key={at}
            className="absolute -translate-x-1/2 whitespace-nowrap font-semibold text-[13px]"
            style={{ left: middle, top: 11 }}
          >
            {day.getDate()}
            {month}
          </span>
        );
      })}
      <span
        className="absolute grid w-[44px] -translate-x-1/2 place-items-center bg-ink pb-1.5 font-bold text-[13px] text-sheet [clip-path:polygon(0_0,100%_0,100%_82%,50%_100%,0_82%)]"
        style={{ left: tape.today, top: -3, height: TAPE_HIGH + 10 }}
        aria-hidden="true"
      >
        today
      </span>
      <ol aria-label="Calls by the day they are due" className="contents">
        {tape.hung.map((h) => (
          <li key={h.call.id} className="absolute" style={{ left: h.left, top: topOf(h.row), width: COLUMN - 6 }}>
            <CallColumn call={h.call} current={h.call.id === current} dated={tape.rows > 1 ? "short" : undefined} />
          </li>
        ))}
      </ol>
    </div>
  );
}

function ticks({ days, each }: Tape): string {
  let path = "";
  for (let day = 0; day <= days; day++) {
    const x = day * each;
    path += `M${x.toFixed(1)} 0v${day % 7 === 0 ? 8 : 4}`;
  }
  return path;
}

type ColumnProps = { call: SeasonCallView; current: boolean; dated?: "short" | "long" | undefined };

/** A call with who makes it. */
export const CallColumn = memo(function CallColumn({ call, current, dated }: ColumnProps) {
  return (
    <div className="grid justify-items-center gap-0.5 text-center text-[13.5px] leading-tight">
      <Link
        to="/calls/$callId"
        params={{ callId: call.id }}
        className={`hover:underline ${current ? "font-bold" : "font-medium"}`}
      >
        {call.name}
      </Link>
      {dated && (
        <span className="text-second">
          {call.due ? (dated === "long" ? longDay : shortDay)(call.due) : "no day yet"}
        </span>
      )}
      <ul className="mt-0.5 grid justify-items-center gap-[3px]">
        {call.makers.map((m) => (
          <li key={m.person}>
            <Maker maker={m} />
            {m.late_days ? <Late days={m.late_days} /> : null}
          </li>
        ))}
      </ul>
      {call.makers.length === 0 && (
        <span className="text-second">{call.open ? "nobody has it yet" : "nobody took it"}</span>
      )}
      {call.open && <TakeIt call={call} />}
    </div>
  );
});

/** The way to take what nobody has yet. */
function TakeIt({ call }: { call: SeasonCallView }) {
  const mayChange = useMayChange();
  const { take } = useTaking();
  if (!mayChange) return null;
  return (
    <button type="button" className="button mt-1" disabled={take.isPending} onClick={() => take.mutate(call.id)}>
      Take it<span className="sr-only">: {call.name}</span>
    </button>
  );
}

/** Four ticks, as a tape has them: one element a maker, for a season has hundreds. */
const TICKS = "repeating-linear-gradient(90deg, transparent 0 9.4px, #2b2206 9.4px 10.4px) top / 44px 4px no-repeat";

/** A maker, and how far her page is. */
export function Maker({ maker }: { maker: MakerView }) {
  const done = maker.finished ? 10 : maker.settled;
  const says = maker.finished
    ? "done"
    : maker.page
      ? `${maker.settled} of 10 stations settled`
      : maker.waits_for
        ? `waits for ${maker.waits_for}`
        : "not begun";
  return (
    <span className="flex items-center gap-2">
      <span className={maker.me ? "font-bold" : ""}>{maker.name}</span>
      <span
        role="img"
        aria-label={says}
        title={says}
        className="h-[10px] w-[54px] border border-[#2b2206]"
        style={{ background: `${TICKS}, linear-gradient(90deg, #17263b ${done * 10}%, #ffc93c 0)` }}
      />
    </span>
  );
}

export function Late({ days }: { days: number }) {
  return (
    <span className="whitespace-nowrap font-semibold text-measure">
      {days === 1 ? "a day late" : `${days} days late`}
    </span>
  );
}

/** The calls one under another, where there is no room for the tape. */
function CallList({ calls, current }: { calls: readonly SeasonCallView[]; current?: string | undefined }) {
  return (
    <ol aria-label="Calls by the day they are due" className="grid gap-2">
      {calls.map((call) => (
        <li key={call.id} className="sheet">
          <CallColumn call={call} current={call.id === current} dated="long" />
        </li>
      ))}
    </ol>
  );
}
