import type { PaperedPieceDoc } from "@/api/client";
import { BUSY, type StashById, sideName, sideOf } from "@/features/stash/looks";
import { lackingOf } from "./model";

type Props = {
  pieces: readonly PaperedPieceDoc[];
  stash: StashById;
  /** How many of each thing the pieces take. */
  needed: Record<string, number>;
  page: string;
};

/** How the papers go together, and what of them is short. */
export function Together({ pieces, stash, needed, page }: Props) {
  const used = pieces.flatMap((p) => {
    const found = p.paper && stash.get(p.paper.item);
    return found && p.paper ? [{ piece: p, thing: found, side: sideOf(found.item, p.paper.side), paper: p.paper }] : [];
  });
  const busy = [...new Set(used.filter((u) => u.side.busy >= BUSY).map((u) => sideName(u.thing.item, u.paper.side)))];
  const grounds = used.filter((u) => !u.piece.of).map((u) => `${u.paper.item}:${u.paper.side ?? "a"}`);
  const open = pieces.filter((p) => !p.paper).length;
  const told: string[] = [];
  if (used.length === 0) told.push("No paper is chosen yet. Take a piece on the page, then a paper for it.");
  if (busy.length === 1) told.push(`${busy[0]} is the one busy sheet.`);
  if (busy.length > 1)
    told.push(`${busy.slice(0, -1).join(", ")} and ${busy.at(-1)} are busy: one busy sheet is enough.`);
  if (grounds.length === 2)
    told.push(grounds[0] === grounds[1] ? "Both pages share one ground." : "Each page has a ground of its own.");
  if (used.length > 0 && open > 0)
    told.push(open === 1 ? "One piece has no paper yet." : `${open} pieces have no paper yet.`);
  const short = lackingOf(needed, stash, page).map(({ name, count, lacks, others }) => {
    const why = others.length > 0 ? `: held for ${others.join(", ")}` : "";
    return `${lacks} of ${count} ${name} ${lacks === 1 ? "is" : "are"} not there${why}.`;
  });
  return (
    <section aria-labelledby="together" className="text-[13.5px]">
      <h3 id="together">How they go together</h3>
      {told.map((t) => (
        <p key={t}>{t}</p>
      ))}
      {short.map((t) => (
        <p key={t} className="text-measure">
          {t}
        </p>
      ))}
    </section>
  );
}
