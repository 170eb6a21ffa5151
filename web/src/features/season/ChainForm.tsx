import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError, api, type ChainLinkDoc, type HopView } from "@/api/client";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { dayAfterLast } from "./HopThread";
import { useRefreshCalls } from "./useSeason";

type Props = { call: string; hop: HopView; onClose: () => void };

const linkOf = (l: HopView["links"][number]): ChainLinkDoc => ({
  ...(l.person ? { person: l.person } : { name: l.maker }),
  ...(l.url ? { url: l.url } : {}),
  ...(l.sketch ? { sketch: l.sketch } : {}),
  day: l.day,
});

/** Who makes a page of the hop on which day; who drops out is closed up. */
export function ChainForm({ call, hop, onClose }: Props) {
  const [links, setLinks] = useState<ChainLinkDoc[]>(hop.links.map(linkOf));
  const team = useQuery({ queryKey: ["team"], queryFn: api.team });
  const sketches = useQuery({ queryKey: ["sketches", "", false], queryFn: () => api.sketches("", false) });
  const refresh = useRefreshCalls();
  const save = useMutation({
    mutationFn: () => api.writeHop(call, hop.revision, links),
    onSuccess: () => {
      refresh();
      onClose();
    },
  });
  const put = (n: number, link: ChainLinkDoc) => setLinks((all) => all.map((l, at) => (at === n ? link : l)));
  const people = (team.data?.people ?? []).filter((p) => p.role !== "guest");
  const nameOf = (link: ChainLinkDoc) => people.find((p) => p.id === link.person)?.name ?? link.name ?? "?";
  return (
    <Sheet
      title="The chain of the hop"
      about="One maker after another, each on a day of her own. Whoever drops out is taken out, and the chain closes up; her page stays hers."
      width="wide"
      onClose={onClose}
    >
      <ol className="mt-3 grid gap-2">
        {links.map((link, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a maker is known by her place
          <li key={n} className="grid gap-1.5 border-hairline border-t pt-2">
            <div className="flex flex-wrap items-center gap-2">
              <b className="w-5">{n + 1}</b>
              <select
                className="field min-w-[10rem] flex-1 py-1"
                aria-label={`Maker ${n + 1}`}
                value={link.person ?? ""}
                onChange={(e) => {
                  const { person: _, name: __, ...rest } = link;
                  put(n, e.target.value ? { ...rest, person: e.target.value } : { ...rest, name: "" });
                }}
              >
                <option value="">somebody from outside</option>
                {people.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.name}
                  </option>
                ))}
              </select>
              <input
                type="date"
                className="field px-2 py-1"
                aria-label={`Day of maker ${n + 1}`}
                value={link.day}
                onChange={(e) => put(n, { ...link, day: e.target.value })}
              />
              <button
                type="button"
                className="link"
                aria-label={`Take ${nameOf(link) || `maker ${n + 1}`} out of the chain`}
                onClick={() => setLinks((all) => all.filter((_, at) => at !== n))}
              >
                Take out
              </button>
            </div>
            {link.person === undefined && (
              <div className="flex flex-wrap gap-2 pl-7">
                <input
                  className="field w-[9rem] px-2 py-1"
                  aria-label={`Name of maker ${n + 1}`}
                  placeholder="her name"
                  maxLength={200}
                  value={link.name ?? ""}
                  onChange={(e) => put(n, { ...link, name: e.target.value })}
                />
                <input
                  className="field min-w-[10rem] flex-1 px-2 py-1"
                  aria-label={`Where her page is, maker ${n + 1}`}
                  placeholder="https://… where her page is"
                  maxLength={2000}
                  value={link.url ?? ""}
                  onChange={(e) => {
                    const { url: _, ...rest } = link;
                    put(n, e.target.value ? { ...rest, url: e.target.value } : rest);
                  }}
                />
                <select
                  className="field min-w-[10rem] flex-1 py-1"
                  aria-label={`Sketch that stands for her page, maker ${n + 1}`}
                  value={link.sketch ?? ""}
                  onChange={(e) => {
                    const { sketch: _, ...rest } = link;
                    put(n, e.target.value ? { ...rest, sketch: e.target.value } : rest);
                  }}
                >
                  <option value="">no sketch of her page yet</option>
                  {sketches.data?.map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.name}
                    </option>
                  ))}
                </select>
              </div>
            )}
          </li>
        ))}
      </ol>
      <button
        type="button"
        className="button mt-3"
        onClick={() =>
          setLinks((all) => {
            const free = people.find((p) => !all.some((l) => l.person === p.id));
            const who = free ? { person: free.id } : { name: "" };
            return [...all, { ...who, day: dayAfterLast(all) }];
          })
        }
      >
        Add a maker
      </button>
      {save.error && (
        <p role="alert" className="mt-2 text-measure">
          {chainFault(save.error)}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <CloseSheet>Cancel</CloseSheet>
        <button type="button" className="button button-first" disabled={save.isPending} onClick={() => save.mutate()}>
          Save the chain
        </button>
      </div>
    </Sheet>
  );
}

/** What is wrong with a chain, by its makers' places. */
export function chainFault(error: Error): string {
  const findings = error instanceof ApiError ? (error.problem.findings ?? []) : [];
  if (findings.length === 0) return error.message;
  return findings
    .map((f) => {
      const place = /links\[(\d+)\]/.exec(f.path)?.[1];
      const found = f.found.replace(/links\[(\d+)\]/g, (_, n) => `place ${Number(n) + 1}`);
      return `${place ? `Place ${Number(place) + 1}: ` : ""}found ${found}; allowed is ${f.allowed}.`;
    })
    .join(" ");
}
