import { isoDay } from "@/shared/ui/days";
import { type Fold, foldText, type TimeTape } from "./timeTape";

/** The tape's height with today's slider, in pixels. */
export const TAPE_HEIGHT = 62;
/** Where the tape's lower edge is, and with it the threads' ends. */
export const TAPE_FOOT = 47;
const TOP = 6;

type Props = { tape: TimeTape; late: number; each: number; folded: number };

/** The tape: what is past is inked over, today is its slider, and later weeks are folded. Widths are in pixels. */
export function TapeOfDays({ tape, late, each, folded }: Props) {
  const { days, folds, overdue } = tape;
  const end = late + days.length * each;
  const width = end + folded;
  const fold = folded / Math.max(1, folds.length);
  return (
    <div className="relative font-medium text-tape-ink" style={{ height: TAPE_HEIGHT }}>
      <svg width={width} height={TAPE_HEIGHT} className="absolute inset-0" aria-hidden="true">
        <rect y={TOP} width={end} height={TAPE_FOOT - TOP} fill="#ffc93c" />
        <rect y={TOP} width={late} height={TAPE_FOOT - TOP} fill="#17263b" />
        <path d={ticks(late, end, each)} stroke="#2b2206" strokeWidth="1" />
        <path d={`M0 ${TAPE_FOOT}H${end}`} stroke="#17263b" strokeWidth="2" />
        {folded > 0 &&
          folds.map((f, n) => (
            <path
              key={f.from.getTime()}
              d={foldOutline(end + n * fold, fold, n % 2 === 1)}
              fill={n % 2 === 1 ? "#d9a726" : "#ffc93c"}
              stroke="#17263b"
            />
          ))}
      </svg>
      {overdue.length > 0 && (
        <span
          className="absolute grid place-items-center text-[13px] text-white"
          style={{ left: 0, top: TOP, width: late, height: TAPE_FOOT - TOP }}
        >
          overdue
        </span>
      )}
      <ol className="contents">
        {days.map((day, n) => (
          <DayMark key={isoDay(day)} day={day} isToday={n === 0} left={late + n * each} width={each} />
        ))}
        {folded > 0 &&
          folds.map((f, n) => <FoldMark key={f.from.getTime()} fold={f} left={end + n * fold} width={fold} />)}
      </ol>
    </div>
  );
}

function ticks(from: number, to: number, each: number): string {
  let path = "";
  for (let x = from; x < to - 1; x += each) {
    path += `M${x} ${TOP}V${TAPE_FOOT}`;
    for (const part of [0.25, 0.5, 0.75]) path += `M${x + each * part} ${TOP}v${part === 0.5 ? 7 : 4}`;
  }
  return path;
}

function foldOutline(left: number, width: number, down: boolean): string {
  const [a, b] = down ? [TOP + 6, TOP] : [TOP, TOP + 6];
  const high = TAPE_FOOT - TOP;
  return `M${left} ${a}L${left + width} ${b}V${b + high}L${left} ${a + high}Z`;
}

function DayMark({ day, isToday, left, width }: { day: Date; isToday: boolean; left: number; width: number }) {
  const weekend = day.getDay() === 0 || day.getDay() === 6;
  const month = isToday || day.getDate() === 1 ? ` ${day.toLocaleDateString("en", { month: "short" })}` : "";
  const weekday = day.toLocaleDateString("en", { weekday: "short" }).slice(0, 2);
  if (isToday) {
    return (
      <li className="absolute grid justify-items-center" style={{ left, top: 0, width }} aria-current="date">
        <span className="grid h-[60px] w-[min(100%,78px)] content-center justify-items-center bg-ink pb-2 [clip-path:polygon(0_0,100%_0,100%_86%,50%_100%,0_86%)]">
          <span className="mt-[2px] grid h-[54px] w-[calc(100%-4px)] content-center justify-items-center bg-white pb-1.5 text-[#17263b] leading-tight [clip-path:polygon(0_0,100%_0,100%_86%,50%_100%,0_86%)]">
            <span className="font-semibold text-[12px]">today</span>
            <span className="whitespace-nowrap text-[13px]">
              <b className="text-[15px]">{day.getDate()}</b>
              {month}
            </span>
          </span>
        </span>
      </li>
    );
  }
  return (
    <li
      className="absolute flex items-center justify-center gap-1 whitespace-nowrap"
      style={{ left, top: TOP, width, height: TAPE_FOOT - TOP }}
    >
      <span className={`text-[15px] ${weekend ? "font-bold" : ""}`}>
        {day.getDate()}
        {month}
      </span>
      <span className="text-[12px]">{weekday}</span>
    </li>
  );
}

function FoldMark({ fold, left, width }: { fold: Fold; left: number; width: number }) {
  return (
    <li
      className="absolute flex items-center justify-center whitespace-nowrap text-[13px]"
      style={{ left, top: TOP + 4, width, height: TAPE_FOOT - TOP }}
    >
      {foldText(fold)}
      {fold.pages.length > 0 && (
        <span className="absolute -bottom-[10px] flex gap-1" aria-hidden="true">
          {fold.pages.slice(0, 4).map((p) => (
            <span key={p.id} className="h-[9px] w-[8px] rounded-b-[1px] bg-ink" />
          ))}
        </span>
      )}
    </li>
  );
}
