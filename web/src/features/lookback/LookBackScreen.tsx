import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { api, type LookedBackView } from "@/api/client";
import { capital, small } from "@/features/stash/words";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { hoursText, type Only, pagesWith } from "./model";

/** Finished pages by month, sketch, kit, maker and colour; how long they took; what has not been told for long. */
export function LookBackScreen() {
  const back = useQuery({ queryKey: ["look-back"], queryFn: ({ signal }) => api.lookBack(signal) });
  const [only, setOnly] = useState<Only>();
  return (
    <main className="grid grid-cols-[minmax(0,1fr)] gap-4 px-[18px] pb-6">
      {back.isError && <Failed error={back.error} onRetry={() => back.refetch()} />}
      {back.isPending && <Notice>Looking back…</Notice>}
      {back.data && <Told back={back.data} only={only} onOnly={setOnly} />}
    </main>
  );
}

type Props = { back: LookedBackView; only: Only | undefined; onOnly: (only: Only | undefined) => void };

function Told({ back, only, onOnly }: Props) {
  const count = back.pages.length;
  const shown = pagesWith(back.pages, only);
  const each = back.timed > 0 ? Math.round(back.minutes / back.timed) : 0;
  return (
    <>
      <div>
        <h1 className="text-[20px]">
          {count === 0
            ? "No page is finished yet"
            : count === 1
              ? "One finished page"
              : `${capital(small(count))} finished pages`}
        </h1>
        {count === 0 && <p className="text-second">Mark a page as finished, and it is told here.</p>}
        {back.timed > 0 && (
          <p className="text-second">
            {`Of ${small(back.timed)} the log tells the time: ${hoursText(back.minutes)} in all, about ${hoursText(each)} each.`}
          </p>
        )}
      </div>
      {count > 0 && (
        <div className="grid items-start gap-4 min-[900px]:grid-cols-[22rem_minmax(0,1fr)]">
          <div className="sheet grid gap-4">
            <Tallies title="By month" of="month" tallies={back.months} only={only} onOnly={onOnly} />
            <Tallies title="By sketch" of="sketch" tallies={back.sketches} only={only} onOnly={onOnly} />
            <Tallies title="By kit" of="kit" tallies={back.kits} only={only} onOnly={onOnly} />
            <Tallies title="By maker" of="maker" tallies={back.makers} only={only} onOnly={onOnly} />
            <Tallies title="By colour" of="colour" tallies={back.colours} only={only} onOnly={onOnly} />
          </div>
          <div className="grid gap-4">
            {back.not_for_long.length > 0 && (
              <section aria-labelledby="not-for-long" className="sheet">
                <h2 id="not-for-long" className="text-[16px]">
                  Not for a long time
                </h2>
                {back.not_for_long.map((told) => (
                  <p key={told}>{told}</p>
                ))}
              </section>
            )}
            <section aria-labelledby="told-pages" className="sheet">
              <h2 id="told-pages" className="text-[16px]">
                {only ? `Pages: ${only.name}` : "All of them, the newest first"}
              </h2>
              <ul>
                {shown.map((page) => (
                  <li key={page.id} className="border-hairline border-b py-2 last:border-b-0">
                    <div className="flex flex-wrap items-baseline justify-between gap-x-4">
                      <Link to="/pages/$pageId/$station" params={{ pageId: page.id, station: "log" }} className="link">
                        {page.name}
                      </Link>
                      <span className="text-[13px] text-second">
                        {page.month}
                        {page.minutes ? `, ${hoursText(page.minutes)}` : ""}
                      </span>
                    </div>
                    <p className="text-[13px] text-second">
                      {[
                        `${page.maker}, from ${page.sketch}`,
                        ...page.kits.map((k) => `kit ${k}`),
                        page.colours.join(", "),
                      ]
                        .filter(Boolean)
                        .join("; ")}
                    </p>
                  </li>
                ))}
              </ul>
            </section>
          </div>
        </div>
      )}
    </>
  );
}

type TalliesProps = {
  title: string;
  of: Only["of"];
  tallies: readonly { name: string; pages: number }[];
  only: Only | undefined;
  onOnly: Props["onOnly"];
};

/** Counts as bars on a tape; one picks the pages that it counts. */
function Tallies({ title, of, tallies, only, onOnly }: TalliesProps) {
  if (tallies.length === 0) return null;
  const most = Math.max(...tallies.map((t) => t.pages));
  return (
    <section aria-label={title}>
      <h2 className="text-[15px]">{title}</h2>
      <ul className="mt-1 grid gap-0.5">
        {tallies.slice(0, 12).map(({ name, pages }) => {
          const on = only?.of === of && only.name === name;
          return (
            <li key={name}>
              <button
                type="button"
                aria-pressed={on}
                className={`grid w-full cursor-pointer grid-cols-[minmax(0,1fr)_6rem_2rem] items-center gap-2 rounded-[3px] px-1 py-0.5 text-left pointer-coarse:min-h-[44px] ${on ? "bg-lit font-semibold" : "hover:bg-tray"}`}
                onClick={() => onOnly(on ? undefined : { of, name })}
              >
                <span className="truncate">{name}</span>
                <span className="h-2.5 bg-tape" style={{ width: `${(100 * pages) / most}%` }} aria-hidden="true" />
                <span className="text-right tabular-nums">{pages}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
