import { Link, useNavigate } from "@tanstack/react-router";
import { DropdownMenu } from "radix-ui";
import type { PageView, PlanDoc } from "@/api/client";
import { PageMenu } from "@/features/history/PageMenu";
import { useRoom } from "@/shared/ui/useRoom";
import { QuietList } from "./QuietList";
import { STATIONS, stationOf } from "./registry";

type Props = {
  page: PageView;
  plan: PlanDoc;
  current: string;
  changePlan: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
  /** Whether all is saved, with undo, redo and history. */
  saving: React.ReactNode;
};

/** The tailor's tape across the top: the page's name, and the ten stations as its inch marks with their state. */
export function Tape({ page, plan, current, changePlan, mayChange, saving }: Props) {
  const standing = (name: string) => page.stations.find((s) => s.name === name);
  const stateOf = (name: string) => {
    const section = sectionOf(plan, name);
    // What it is settled on is written down as it is saved; until then it is as she says.
    if (section?.mark === "settled" && !section.grounds) return "settled";
    // A fit that can't hold, and what changed since it was settled, are known to the server once all is saved.
    return standing(name)?.state === "needs-a-look" ? "needs-a-look" : (section?.mark ?? "open");
  };
  const room = useRoom();
  const here = stationOf(current);
  const state = stateOf(current);
  const settled = state === "settled";
  const changed = state === "needs-a-look" ? (standing(current)?.changed ?? []) : [];
  const mark = () => {
    if (!here) return;
    const { mark: _, grounds: __, ...decided } = sectionOf(plan, current) ?? {};
    const section = settled ? decided : { ...decided, mark: "settled" };
    changePlan({ ...plan, [current]: section }, settled ? `${here.label} opened again` : `${here.label} settled`);
  };
  return (
    <header className="relative border-ink border-b-2 bg-tape text-tape-ink">
      <Ticks at="top" />
      <Ticks at="bottom" />
      <div className="relative flex min-h-[46px] items-stretch">
        <div className="flex min-w-0 flex-1 items-center gap-3 pl-[18px]">
          <Link to="/" className="font-medium text-[13px] underline underline-offset-2">
            Table
          </Link>
          <h1 className="truncate text-[20px]" title={page.name}>
            {page.name}
          </h1>
        </div>
        {room === "narrow" ? (
          <StationMenu page={page} current={current} stateOf={stateOf} />
        ) : (
          <nav aria-label="Stations" className="flex flex-none">
            {STATIONS.map((s) => {
              const on = s.name === current;
              const state = stateOf(s.name);
              return (
                <Link
                  key={s.name}
                  to="/pages/$pageId/$station"
                  params={{ pageId: page.id, station: s.name }}
                  aria-current={on ? "page" : undefined}
                  className={`flex min-h-[42px] items-center gap-1.5 border-tape-ink/60 border-l font-heading font-semibold text-[14px] ${
                    room === "wide" ? "min-w-[74px] px-2" : "px-1.5"
                  } ${on ? "bg-[#17263b] text-white" : "hover:bg-black/10"}`}
                >
                  {s.label}
                  <StateMark state={state} />
                </Link>
              );
            })}
          </nav>
        )}
      </div>
      {here && (
        <div className="relative flex flex-wrap items-center gap-2 border-tape-ink/40 border-t bg-sheet px-[18px] py-1 text-ink">
          {changed.length > 0 ? (
            <span role="status" className="font-semibold">
              Look again: {listed(changed)} changed since you settled this.
            </span>
          ) : (
            room !== "narrow" && <span className="text-second">{here.decides}</span>
          )}
          <div className="ml-auto flex flex-wrap items-center justify-end gap-x-5 gap-y-1">
            {FROM_FIT.has(current) && <QuietList page={page} plan={plan} here={current} />}
            {saving}
            <span className="flex gap-2">
              <button type="button" className="button" aria-pressed={settled} disabled={!mayChange} onClick={mark}>
                {settled ? "Settled" : changed.length > 0 ? "Settle it again" : "Mark as settled"}
              </button>
              <PageMenu page={page} />
            </span>
          </div>
        </div>
      )}
    </header>
  );
}

/** Stations at which the page lies laid out. */
const FROM_FIT = new Set(["fit", "papers", "cut", "words", "build", "log"]);

type Section = { mark?: string | null; grounds?: unknown };

/** A station's section of a plan. */
const sectionOf = (plan: PlanDoc, name: string) => plan[name as keyof PlanDoc] as Section | null | undefined;

/** “the sketch, the photos and the page”. */
function listed(words: readonly string[]): string {
  return words.length > 1 ? `${words.slice(0, -1).join(", ")} and ${words.at(-1)}` : (words[0] ?? "");
}

/** Where there is no room for ten marks the tape is one target: it tells where she is, and opens the rest. */
function StationMenu({
  page,
  current,
  stateOf,
}: {
  page: PageView;
  current: string;
  stateOf: (name: string) => string;
}) {
  const navigate = useNavigate();
  const at = STATIONS.findIndex((s) => s.name === current);
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="flex min-h-[44px] flex-none cursor-pointer items-center gap-2 bg-[#17263b] px-3 font-heading font-semibold text-[15px] text-white">
        {at + 1} {STATIONS[at]?.label}
        <StateMark state={stateOf(current)} />
        <svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true">
          <path d="M0 0H9L4.5 6Z" fill="currentColor" />
        </svg>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="sheet z-20 grid min-w-[13rem] p-1 shadow-lg">
          {STATIONS.map((s, n) => (
            <DropdownMenu.Item
              key={s.name}
              className="flex min-h-[44px] cursor-pointer items-center gap-2 rounded-[2px] px-2.5 outline-none data-highlighted:bg-ink data-highlighted:text-sheet"
              onSelect={() => navigate({ to: "/pages/$pageId/$station", params: { pageId: page.id, station: s.name } })}
            >
              <span className="w-5 text-right">{n + 1}</span>
              {s.label}
              <StateMark state={stateOf(s.name)} />
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** A tick for settled, a ring for what needs a look; nothing for open. */
function StateMark({ state }: { state: string }) {
  if (state === "settled") {
    return (
      <svg width="11" height="10" viewBox="0 0 11 10" role="img" aria-label="settled">
        <path d="M1 5.2L4 8.4L10 1" fill="none" stroke="currentColor" strokeWidth="2.2" />
      </svg>
    );
  }
  if (state === "needs-a-look") {
    return (
      <svg width="11" height="11" viewBox="0 0 11 11" role="img" aria-label="needs a look">
        <circle cx="5.5" cy="5.5" r="4" fill="none" stroke="#a01349" strokeWidth="2.2" />
      </svg>
    );
  }
  return null;
}

function Ticks({ at }: { at: "top" | "bottom" }) {
  const marks = "repeating-linear-gradient(90deg, var(--color-tape-ink) 0 1px, transparent 1px 10.25px)";
  return (
    <div
      aria-hidden
      className={`absolute inset-x-0 h-[5px] opacity-60 ${at}-0`}
      style={{ [at]: 0, background: marks }}
    />
  );
}
