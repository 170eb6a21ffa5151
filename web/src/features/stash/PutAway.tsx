import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { api, type SaidView } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { Failed } from "@/shared/ui/Failed";
import { Length } from "@/shared/ui/Length";
import { Segments } from "@/shared/ui/Segments";
import { withNotes } from "./notes";
import { useStashChanges } from "./useStash";

/** What she has, said in a line: shown as it is understood, then put away. What is not understood is kept as a note. */
export function PutAway({ unit }: { unit: Unit }) {
  const [text, setText] = useState("");
  const [own, setOwn] = useState(false);
  const asked = useDeferredValue(text.trim());
  const { putAway } = useStashChanges();
  const said = useQuery({
    queryKey: ["said", asked, unit],
    queryFn: ({ signal }) => api.readStash(asked, unit, signal),
    enabled: asked !== "",
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const understood = asked === "" ? [] : (said.data ?? []);
  const items = withNotes(understood);
  const put = () => {
    if (items.length > 0) putAway.mutate({ items, own }, { onSuccess: () => setText("") });
  };
  return (
    <form
      aria-label="Put away"
      className="grid gap-1.5"
      onSubmit={(e) => {
        e.preventDefault();
        put();
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <input
          className="field min-w-0 flex-1 px-3 py-2 text-[15.5px]"
          aria-label="What you have"
          placeholder="2 x 12x12 dots / plain, strip 1/2 bottom, kit Ebb"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Segments
          label="Whose it is"
          value={own ? "own" : "team"}
          options={WHOSE}
          onChoose={(whose) => setOwn(whose === "own")}
        />
        <button type="submit" className="button button-first" disabled={items.length === 0 || putAway.isPending}>
          Put away
        </button>
      </div>
      {understood.length > 0 && (
        <ul className="flex flex-wrap gap-x-4 gap-y-1 text-[13px]" aria-label="What was understood">
          {understood.map((s, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: what is understood has no other name than its place in the line
            <li key={n} className="border-hairline border-r pr-4 last:border-r-0">
              <Understood said={s} unit={unit} />
            </li>
          ))}
        </ul>
      )}
      {said.isError && <Failed error={said.error} onRetry={() => said.refetch()} />}
      {putAway.isError && <Failed error={putAway.error} onRetry={put} />}
    </form>
  );
}

/** Whose a thing is. */
export const WHOSE: { value: "team" | "own"; label: string }[] = [
  { value: "team", label: "the team's" },
  { value: "own", label: "mine" },
];

const KINDS: Record<string, string> = { embellishment: "pieces", scrap: "a scrap", tool: "a tool" };

function Understood({ said, unit }: { said: SaidView; unit: Unit }) {
  const { item, unknown } = said;
  if (!item)
    return (
      <>
        <span className="font-bold text-measure">?</span> <b>{unknown}</b>: not known, kept as a note
      </>
    );
  return (
    <>
      <span className="font-bold text-pin">✓</span> <b>{`${item.count} × ${item.name}`}</b>
      {item.b?.name && ` / ${item.b.name}`}
      {item.size && (
        <>
          , <Length value={item.size.w} unit={unit} /> × <Length value={item.size.h} unit={unit} withUnit />
        </>
      )}
      {`, ${KINDS[item.kind] ?? item.kind}`}
      {item.strip && (
        <>
          , strip <Length value={item.strip.width} unit={unit} /> {item.strip.edge}
        </>
      )}
      {item.kit && `, kit ${item.kit}`}
      {item.kept && `, in ${item.kept}`}
    </>
  );
}
