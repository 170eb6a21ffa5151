import { useDeferredValue, useEffect, useRef, useState } from "react";
import type { StashItemView } from "@/api/client";
import { useMayChange, useMe } from "@/features/people/useMe";
import { Failed } from "@/shared/ui/Failed";
import { AsTable } from "./AsTable";
import { Held } from "./Held";
import { Kits } from "./Kits";
import { PutAway } from "./PutAway";
import { Thing } from "./Thing";
import { ThingDetails } from "./ThingDetails";
import { useStash } from "./useStash";

const GROUPS: readonly { title: string; about: string; kinds: readonly string[] }[] = [
  { title: "Sheets", about: "the other side at the corner, the printed strip hatched", kinds: ["sheet"] },
  {
    title: "Cards, pads and scraps",
    about: "scraps in their true shape",
    kinds: ["cardstock", "pad", "card", "vellum", "acetate", "packaging", "scrap"],
  },
  { title: "Letters", about: "how many are left", kinds: ["letters"] },
  { title: "Pieces", about: "counted, to the same scale", kinds: ["embellishment"] },
  { title: "Tools", about: "with their reach", kinds: ["tool"] },
];

/** All that is in the stash, to one scale; what pages hold of it, and what is left of each kit. */
export function StashScreen() {
  const [search, setSearch] = useState("");
  const [taken, setTaken] = useState<string>();
  const unit = useMe().data?.defaults.unit === "mm" ? "mm" : "in";
  const mayChange = useMayChange();
  const wanted = useDeferredValue(search.trim());
  const stash = useStash(wanted, unit);
  const things = stash.items ?? [];
  const inHand = things.find((t) => t.id === taken);
  return (
    <main className="grid items-start gap-4 p-[18px] pt-1 min-[1180px]:grid-cols-[minmax(0,1fr)_316px]">
      <h1 className="sr-only">Stash</h1>
      <div className="grid min-w-0 gap-4">
        {mayChange && <PutAway unit={unit} />}
        <div className="flex flex-wrap items-center gap-2">
          <input
            type="search"
            className="field w-full max-w-[28rem] px-2 py-1"
            aria-label="Search the stash"
            placeholder="a name, a colour, a kit, “enough for a 12 in strip”"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
          <AsTable mayChange={mayChange} />
        </div>
        {stash.isError && <Failed error={stash.error} onRetry={() => stash.refetch()} />}
        {stash.isPending && <p className="text-second">Opening the stash…</p>}
        {stash.data && things.length === 0 && (
          <p className="text-second">
            {wanted ? "Nothing in the stash is like that." : "The stash is empty. Say above what you have."}
          </p>
        )}
        {GROUPS.map((group) => (
          <Group key={group.title} {...group} things={things} taken={taken} onTake={setTaken} />
        ))}
        {stash.hasNextPage && <More isComing={stash.isFetchingNextPage} onMore={stash.fetchNextPage} />}
        <Held things={things} />
      </div>
      <Kits things={things} onSearch={setSearch} />
      {inHand && (
        <ThingDetails key={inHand.id} thing={inHand} mayChange={mayChange} onClose={() => setTaken(undefined)} />
      )}
    </main>
  );
}

/** Brings the next part in as soon as she comes near it, or on a click. */
function More({ isComing, onMore }: { isComing: boolean; onMore: () => void }) {
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const end = button.current;
    if (!end || isComing) return;
    const watch = new IntersectionObserver(([seen]) => seen?.isIntersecting && onMore(), { rootMargin: "600px" });
    watch.observe(end);
    return () => watch.disconnect();
  }, [isComing, onMore]);
  return (
    <button ref={button} type="button" className="button justify-self-start" disabled={isComing} onClick={onMore}>
      {isComing ? "Bringing more…" : "Show more of the stash"}
    </button>
  );
}

function Group({
  title,
  about,
  kinds,
  things,
  taken,
  onTake,
}: (typeof GROUPS)[number] & {
  things: readonly StashItemView[];
  taken: string | undefined;
  onTake: (id: string) => void;
}) {
  const own = things.filter((t) => kinds.includes(t.item.kind));
  if (own.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2 className="inline text-[16px]">{title}</h2> <span className="text-[13px] text-second">{about}</span>
      <ul className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-4">
        {own.map((thing) => (
          <Thing key={thing.id} thing={thing} on={thing.id === taken} onTake={() => onTake(thing.id)} />
        ))}
      </ul>
    </section>
  );
}
