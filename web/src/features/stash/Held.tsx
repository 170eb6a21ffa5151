import { Link } from "@tanstack/react-router";
import type { StashItemView } from "@/api/client";
import { PaperSwatch } from "./PaperSwatch";
import { small } from "./words";

type ByPage = { page: string; name: string; things: { thing: StashItemView; held: number; wanted: number }[] };

/** What pages hold, page by page, and what they lack. */
export function Held({ things }: { things: readonly StashItemView[] }) {
  const pages = byPage(things);
  if (pages.length === 0) return null;
  return (
    <section aria-labelledby="held" className="sheet grid gap-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="held">Held, and by which page</h2>
        <span className="text-[13px] text-second">held paper is not offered to another page</span>
      </div>
      <ul className="grid gap-3 min-[900px]:grid-cols-2">
        {pages.map((page) => {
          const held = page.things.reduce((sum, t) => sum + t.held, 0);
          const lacks = page.things.filter((t) => t.held < t.wanted);
          return (
            <li key={page.page}>
              <Link
                to="/pages/$pageId/$station"
                params={{ pageId: page.page, station: "papers" }}
                className="font-semibold hover:underline"
              >
                {page.name}
              </Link>
              <span className="ml-2 text-[13px] text-second">{held === 1 ? "one sheet" : `${small(held)} sheets`}</span>
              <div className="mt-1 flex flex-wrap gap-1.5">
                {page.things.flatMap(({ thing, held: count }) =>
                  [...Array(Math.min(6, count)).keys()].map((n) => (
                    <PaperSwatch
                      key={`${thing.id}-${n}`}
                      item={thing.item}
                      side="a"
                      width={36}
                      height={36}
                      perInch={14}
                    />
                  )),
                )}
              </div>
              {lacks.map(({ thing, wanted, held: count }) => (
                <p key={thing.id} className="text-[13px] text-measure">
                  {`${thing.item.name}: ${small(wanted - count)} more wanted than there are.`}
                </p>
              ))}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function byPage(things: readonly StashItemView[]): ByPage[] {
  const pages = new Map<string, ByPage>();
  for (const thing of things) {
    for (const { page, name, held, wanted } of thing.holds) {
      const known = pages.get(page) ?? { page, name, things: [] };
      pages.set(page, { ...known, things: [...known.things, { thing, held, wanted }] });
    }
  }
  return [...pages.values()].sort((a, b) => a.name.localeCompare(b.name));
}
