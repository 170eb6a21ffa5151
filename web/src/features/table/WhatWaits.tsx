import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useMe } from "@/features/people/useMe";
import { allDrafts } from "@/features/plan/drafts";
import { useSeason } from "@/features/season/useSeason";

/** What this browser keeps of hers that is not saved yet, with the way to each. */
export function WhatWaits() {
  const person = useMe().data?.id ?? "";
  const drafts = useQuery({ queryKey: ["drafts", person], queryFn: () => allDrafts(person), staleTime: 0 }).data ?? [];
  if (drafts.length === 0) return null;
  return (
    <section aria-labelledby="waits" className="sheet">
      <h2 id="waits">Not saved yet</h2>
      <p className="text-second">Kept in this browser. Open one to save it.</p>
      <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
        {drafts.map((d) => (
          <li key={`${d.thing} ${d.at}`}>
            <Way thing={d.thing} name={d.name} />, since{" "}
            {new Date(d.at).toLocaleString("en", { dateStyle: "medium", timeStyle: "short" })}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Pages hang on the tape with their dates; what the season tells beside that is told here: her turn in a hop, what is late and not begun. */
export function FromSeason() {
  const season = useSeason().data;
  const mine = (season?.notices ?? []).filter((n) => n.mine && !n.page);
  // The line is kept also while it is empty: what comes late must not push a page away from under a hand.
  return (
    <p role="status" className="flex min-h-[2.1em] flex-wrap items-baseline gap-x-4 gap-y-1 py-1">
      {mine.slice(0, 2).map((n) => (
        <span key={n.text}>
          {n.text}{" "}
          <Link to="/calls/$callId" params={{ callId: n.call }} className="link">
            To the call
          </Link>
        </span>
      ))}
      {mine.length > 2 && (
        <Link to="/season" className="link">
          and {mine.length - 2} more
        </Link>
      )}
    </p>
  );
}

function Way({ thing, name }: { thing: string; name: string }) {
  const [kind, id] = thing.split(" ");
  if (kind !== "sketch" || !id) {
    return (
      <Link to="/pages/$pageId/$station" params={{ pageId: thing, station: "fit" }} className="link">
        {name}
      </Link>
    );
  }
  if (id === "new" || id === "read") {
    return (
      <Link to={id === "new" ? "/drawer/new" : "/drawer/picture"} className="link">
        {name}
      </Link>
    );
  }
  return (
    <Link to="/sketches/$sketchId" params={{ sketchId: id }} className="link">
      {name}
    </Link>
  );
}
