import { Link } from "@tanstack/react-router";
import { useDeferredValue, useState } from "react";
import type { PaperRefDoc, StashItemView } from "@/api/client";
import { ThingDrawing } from "@/features/stash/ThingDrawing";
import { useStash } from "@/features/stash/useStash";
import { countText } from "@/features/stash/words";
import { Failed } from "@/shared/ui/Failed";
import { isSamePaper } from "./model";
import { PAPER } from "./PaperedPage";

type Props = {
  page: string;
  unit: string;
  /** The paper of the piece in hand. */
  used: PaperRefDoc | null | undefined;
  onChoose: ((paper: PaperRefDoc) => void) | undefined;
};

const NO_PAPER = new Set(["letters", "embellishment", "tool"]);
/** Everything at one scale, in pixels an inch. */
const PER_INCH = 8.4;

/** The stash's papers at one scale: the side that lies up by a click, the other one by its corner. */
export function StashTray({ page, unit, used, onChoose }: Props) {
  const [search, setSearch] = useState("");
  const stash = useStash(useDeferredValue(search.trim()), unit);
  const papers = (stash.items ?? []).filter((t) => !NO_PAPER.has(t.item.kind) && t.item.count > 0);
  return (
    <section aria-labelledby="stash" className="grid gap-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
        <h2 id="stash" className="text-[17px]">
          Stash
        </h2>
        <span className="text-[13px] text-second">all to one scale, the other side at the corner</span>
        <input
          type="search"
          aria-label="Search the stash"
          placeholder="navy, kit Ebb, enough for a 12 in strip"
          className="field ml-auto w-[19rem] max-w-full px-2 py-1"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
        <Link to="/stash" className="button">
          Open the stash
        </Link>
      </div>
      {stash.isError && <Failed error={stash.error} onRetry={() => stash.refetch()} />}
      {stash.data && papers.length === 0 && <p className="text-second">No paper in the stash is like that.</p>}
      <ul className="flex flex-wrap items-end gap-x-4 gap-y-3 p-1">
        {papers.map((thing) => (
          <PaperInTray key={thing.id} thing={thing} page={page} used={used} onChoose={onChoose} />
        ))}
      </ul>
    </section>
  );
}

function PaperInTray({ thing, page, used, onChoose }: { thing: StashItemView } & Omit<Props, "unit">) {
  const on = isSamePaper({ item: thing.id, side: "a" }, used) || isSamePaper({ item: thing.id, side: "b" }, used);
  const own = thing.holds.find((h) => h.page === page)?.held ?? 0;
  const drawn = <ThingDrawing thing={thing} perInch={PER_INCH} />;
  return (
    <li className="w-[104px] text-[13px] leading-tight">
      {onChoose ? (
        <span className="relative inline-block">
          <button
            type="button"
            draggable
            aria-label={`${thing.item.name}, ${countText(thing)}`}
            aria-pressed={on}
            className={`block cursor-pointer rounded-[2px] ${on ? "outline-2 outline-ink outline-offset-2" : ""}`}
            onClick={() => onChoose({ item: thing.id, side: "a" })}
            onDragStart={(e) => e.dataTransfer.setData(PAPER, `${thing.id}:a`)}
          >
            {drawn}
          </button>
          {thing.item.b && (
            <button
              type="button"
              className="absolute top-0 right-0 size-6 cursor-pointer pointer-coarse:size-11"
              aria-label={`${thing.item.b.name ?? thing.item.name}, the other side`}
              title="The other side"
              onClick={() => onChoose({ item: thing.id, side: "b" })}
            />
          )}
        </span>
      ) : (
        drawn
      )}
      <span className="mt-1 block truncate font-semibold">{thing.item.name}</span>
      <span className="text-second">{countText(thing, own)}</span>
    </li>
  );
}
