import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useMemo, useState } from "react";
import { api, type PageCard } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { DecideToday, TopOfDrawer } from "./Beside";
import { Hanging } from "./Hanging";
import { PageOnTable, SCALE } from "./PageOnTable";
import { FromSeason, WhatWaits } from "./WhatWaits";

/** Home: pages in the making by due date, what wants deciding, the top of the drawer; finished ones apart. */
export function TableScreen() {
  const pages = useQuery({
    queryKey: ["pages", "making"],
    queryFn: () => api.pages("making"),
  });
  const today = useMemo(() => new Date(), []);
  const undated = pages.data?.filter((p) => !p.due) ?? [];
  return (
    <main className="grid grid-cols-[minmax(0,1fr)] gap-4 pb-6">
      <h1 className="sr-only">The table</h1>
      {pages.isError && <Failed error={pages.error} onRetry={() => pages.refetch()} />}
      {pages.isPending && (
        <div className="p-[18px]">
          <Notice>Fetching the pages…</Notice>
        </div>
      )}
      <div className="px-[18px] empty:hidden">
        <WhatWaits />
        <FromSeason />
      </div>
      {pages.data && (
        <Hanging
          pages={pages.data}
          today={today}
          undated={undated.length > 0 ? <Undated pages={undated} today={today} /> : null}
          undatedBeside={undated.length <= FEW}
        />
      )}
      {pages.data?.length === 0 && (
        <div className="px-[18px]">
          <Notice>
            No page is in the making. Open the{" "}
            <Link to="/drawer" className="link">
              sketch drawer
            </Link>{" "}
            and start one from a sketch.
          </Notice>
        </div>
      )}
      <div className="grid gap-4 px-[18px] lg:grid-cols-2">
        <DecideToday pages={pages.data ?? []} today={today} />
        <TopOfDrawer />
      </div>
      <div className="grid gap-4">
        <Shelf shelf="finished" title="Finished" today={today} />
        <Shelf shelf="archived" title="Archived" today={today} />
      </div>
    </main>
  );
}

/** So few pages without a date find room beside the tape. */
const FEW = 3;

/** So many are shown at first: about a screenful, and no more than a moment's work. */
const AT_FIRST = 12;
/** Unhung pages lie a little askew. */
const ASKEW = [-2.5, 1.5, -1];

/** Pages without a date hang nowhere: they lie in rows of their own. */
function Undated({ pages, today }: { pages: readonly PageCard[]; today: Date }) {
  const [all, setAll] = useState(false);
  const shown = all ? pages : pages.slice(0, AT_FIRST);
  return (
    <section aria-labelledby="undated" className="@container">
      <h2 id="undated" className="mb-2 text-[16px]">
        Without a date
      </h2>
      <ul className="grid gap-x-5 gap-y-4 @sm:grid-cols-[repeat(auto-fill,minmax(240px,1fr))]">
        {shown.map((page, n) => (
          <li key={page.id}>
            <PageOnTable page={page} today={today} scale={SCALE * 0.6} beside sized askew={ASKEW[n % ASKEW.length]} />
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

/** Pages that are done or put away: fetched when they are wanted. */
function Shelf({ shelf, title, today }: { shelf: "finished" | "archived"; title: string; today: Date }) {
  const [open, setOpen] = useState(false);
  const pages = useQuery({ queryKey: ["pages", shelf], queryFn: () => api.pages(shelf), enabled: open });
  return (
    <section className="px-[18px]" aria-label={title}>
      <button type="button" className="button" aria-expanded={open} onClick={() => setOpen((o) => !o)}>
        {title}
        <svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true" className={open ? "rotate-180" : ""}>
          <path d="M0 0H9L4.5 6Z" fill="currentColor" />
        </svg>
      </button>
      {open && pages.isError && <Failed error={pages.error} onRetry={() => pages.refetch()} />}
      {open && pages.data?.length === 0 && (
        <p className="mt-2 text-second">{shelf === "finished" ? "No page is finished yet." : "No page is archived."}</p>
      )}
      {open && (pages.data?.length ?? 0) > 0 && (
        <ul className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] gap-5">
          {pages.data?.map((page: PageCard) => (
            <li key={page.id}>
              <PageOnTable page={page} today={today} scale={SCALE * 0.72} beside />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
