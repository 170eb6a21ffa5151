import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type DifferenceDoc } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";

type Props = {
  page: string;
  revision: number;
  picture: string;
  saved: boolean;
  numberOf: (block: string) => string;
  onWrite: ((text: string) => void) | undefined;
};

/** Where the picture's edges lie otherwise than planned: she keeps those that are true, and they go into the log. The plan stays what it was. */
export function Differences({ page, revision, picture, saved, numberOf, onWrite }: Props) {
  const [asked, setAsked] = useState<string>();
  const [dropped, setDropped] = useState<ReadonlySet<string>>(new Set());
  const isAsked = asked === picture;
  const found = useQuery({
    queryKey: ["differences", page, revision, picture],
    queryFn: () => api.pageDifferences(page),
    enabled: isAsked && saved,
  });
  if (!isAsked) {
    return (
      <button type="button" className="button justify-self-start" onClick={() => setAsked(picture)}>
        Hold it against the plan
      </button>
    );
  }
  const all = found.data?.differences ?? [];
  const kept = all.filter((d) => !dropped.has(d.block));
  const toggle = (d: DifferenceDoc) => {
    const next = new Set(dropped);
    if (!next.delete(d.block)) next.add(d.block);
    setDropped(next);
  };
  return (
    <section aria-labelledby="differences" className="grid gap-1.5">
      <h3 id="differences">Otherwise than planned</h3>
      {found.isError && <Failed error={found.error} onRetry={() => found.refetch()} />}
      {(found.isPending || !saved) && <Notice>Looking for the edges in the picture…</Notice>}
      {found.data && !found.data.is_this_page && (
        <p className="text-measure">
          Only {found.data.found} of {found.data.looked_for} edges lie near where they are planned: is this a picture of
          this page, brought upright, with nothing round it?
        </p>
      )}
      {found.data?.is_this_page && all.length === 0 && <p>Every edge that shows lies where it was planned.</p>}
      {found.data?.is_this_page && all.length > 0 && (
        <>
          <ul className="grid gap-0.5">
            {all.map((d) => (
              <li key={d.block}>
                <label className="flex items-baseline gap-2">
                  <input
                    type="checkbox"
                    checked={!dropped.has(d.block)}
                    disabled={!onWrite}
                    onChange={() => toggle(d)}
                  />
                  <span>
                    <strong>{numberOf(d.block)}</strong> <Sentence text={d.text} />
                  </span>
                </label>
              </li>
            ))}
          </ul>
          {onWrite && (
            <button
              type="button"
              className="button justify-self-start"
              disabled={kept.length === 0}
              onClick={() => onWrite(`As made: ${kept.map((d) => `${numberOf(d.block)} ${d.text}`).join("; ")}.`)}
            >
              Write {kept.length === 1 ? "it" : "these"} into the log
            </button>
          )}
        </>
      )}
    </section>
  );
}
