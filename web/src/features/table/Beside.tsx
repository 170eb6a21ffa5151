import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { api, type PageCard } from "@/api/client";
import { ScaledThumbnail } from "@/shared/drawing/PageSheet";
import { dayOf, daysBetween } from "@/shared/ui/days";
import { Notice } from "@/shared/ui/Notice";
import { NextDecision, stationToOpen } from "./PageOnTable";

/** What is due within so many days wants deciding. */
const SOON = 14;

const MOST = 6;
/** So many sketches may lie on top; as many are seen as there is room for. */
const MOST_SKETCHES = 14;

/** The next decision of each page that is due soon, the most urgent first. */
export function DecideToday({ pages, today }: { pages: readonly PageCard[]; today: Date }) {
  const soon = pages.filter((p) => p.next && p.due && daysBetween(today, dayOf(p.due)) <= SOON).slice(0, MOST);
  return (
    <section aria-labelledby="decide" className="sheet">
      <div className="flex items-baseline justify-between">
        <h2 id="decide">To decide today</h2>
        <span className="text-second">most pressing first</span>
      </div>
      {soon.length === 0 && <p className="mt-1 text-second">Nothing is due within two weeks.</p>}
      <ul className="mt-1">
        {soon.map((page) => (
          <li
            key={page.id}
            className="grid grid-cols-[9.5rem_1fr_auto] gap-3 border-hairline border-t py-1.5 leading-snug"
          >
            <span className="font-semibold">{page.name}</span>
            <span>
              <NextDecision page={page} />
            </span>
            <Link
              to="/pages/$pageId/$station"
              params={{ pageId: page.id, station: stationToOpen(page) }}
              className="link capitalize"
            >
              {stationToOpen(page)}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The first sketches of the drawer. */
export function TopOfDrawer() {
  const sketches = useQuery({ queryKey: ["sketches", "", false], queryFn: () => api.sketches("", false) });
  const all = sketches.data ?? [];
  return (
    <section aria-labelledby="top" className="sheet">
      <div className="flex items-baseline justify-between">
        <h2 id="top">Top of the drawer</h2>
        <Link to="/drawer" className="link">
          {all.length > 0 ? `All ${all.length} sketches` : "Open the drawer"}
        </Link>
      </div>
      {sketches.isPending && <Notice>Fetching the sketches…</Notice>}
      {sketches.data?.length === 0 && <p className="mt-1 text-second">The drawer is empty.</p>}
      <ul className="mt-2 flex max-h-[236px] flex-wrap items-end gap-x-5 overflow-hidden">
        {all.slice(0, MOST_SKETCHES).map((s) => (
          <li key={s.id} className="h-[118px] min-w-[64px] content-end">
            <Link to="/sketches/$sketchId" params={{ sketchId: s.id }} className="block w-min hover:underline">
              <ScaledThumbnail
                canvas={s.document.canvas}
                blocks={s.document.blocks}
                unit={s.document.unit === "mm" ? "mm" : "in"}
                perInch={6.4}
              />
              <span className="mt-1 block h-[2.3em] overflow-hidden text-[13.5px] leading-tight">{s.name}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
