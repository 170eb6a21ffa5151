import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { api, type PageCard } from "@/api/client";
import { BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { dayOf, daysBetween } from "@/shared/ui/days";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";

/** What is due within so many days wants deciding. */
const SOON = 14;

/** The next decision of each page that is due soon, the most urgent first. */
export function DecideToday({ pages, today }: { pages: readonly PageCard[]; today: Date }) {
  const soon = pages.filter((p) => p.next && p.due && daysBetween(today, dayOf(p.due)) <= SOON).slice(0, 6);
  return (
    <section aria-labelledby="decide" className="sheet">
      <h2 id="decide">At the table today</h2>
      {soon.length === 0 && <p className="mt-1 text-second">Nothing is due within two weeks.</p>}
      <ul className="mt-1">
        {soon.map((page) => {
          const at =
            page.stations.find((s) => s.state === "needs-a-look") ?? page.stations.find((s) => s.state === "open");
          return (
            <li key={page.id} className="grid grid-cols-[9.5rem_1fr_auto] gap-3 border-hairline border-b py-1.5">
              <span className="font-semibold">{page.name}</span>
              <span>
                <BlockNumbers numbers={numbersOf(page.layout.blocks)}>
                  <Sentence text={page.next ?? ""} />
                </BlockNumbers>
              </span>
              {at && (
                <Link
                  to="/pages/$pageId/$station"
                  params={{ pageId: page.id, station: at.name }}
                  className="link capitalize"
                >
                  {at.name}
                </Link>
              )}
            </li>
          );
        })}
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
          Open the drawer
        </Link>
      </div>
      {sketches.isPending && <Notice>Fetching the sketches…</Notice>}
      {sketches.data?.length === 0 && <p className="mt-1 text-second">The drawer is empty.</p>}
      <ul className="mt-2 flex flex-wrap gap-4">
        {all.slice(0, 4).map((s) => (
          <li key={s.id} className="w-[124px]">
            <div className="flex h-[92px] items-end">
              <Thumbnail
                canvas={s.document.canvas}
                blocks={s.document.blocks}
                width={122}
                height={90}
                label={`The sketch ${s.name}`}
              />
            </div>
            <p className="mt-1 font-medium leading-tight">{s.name}</p>
          </li>
        ))}
      </ul>
      {all.length > 0 && (
        <p className="mt-2 text-second">
          {all.length} {all.length === 1 ? "sketch" : "sketches"}
        </p>
      )}
    </section>
  );
}
