import { useMutation, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type PageView, type PlanDoc, type ProposalDoc } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { fitOf } from "@/features/plan/sections";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import type { Comparable } from "./Compare";
import { chosenWay } from "./useProposals";

/** An alternative's name begins so; other named versions are her own bookmarks. */
const BEGINS = "Alternative ";

type Kept = Comparable & { plan: PlanDoc; revision: number };

/** The alternatives of a page that are kept until she chooses: named revisions, each fitted as it was. */
export function useAlternatives(page: PageView) {
  const versions = useQuery({ queryKey: ["versions", page.id], queryFn: () => api.versions(page.id) });
  const named = (versions.data ?? []).filter((v) => v.name.startsWith(BEGINS));
  const answers = useQueries({
    queries: named.map(({ revision }) => ({
      queryKey: ["alternative", page.id, revision],
      queryFn: async () => {
        const found = await api.revision(page.id, revision);
        const plan = found.plan as PlanDoc;
        const fit = fitOf(plan);
        const { approach: _, ...all } = fit;
        const fitted = await api.fit(all);
        return { plan, proposal: chosenWay(fit, fitted.proposals) };
      },
      staleTime: Number.POSITIVE_INFINITY,
    })),
  });
  const kept = named.flatMap(({ name, revision }, n): Kept[] => {
    const found = answers[n]?.data;
    return found?.proposal ? [{ name, revision, plan: found.plan, proposal: found.proposal }] : [];
  });
  return { names: named.map((n) => n.name), kept: kept.sort((a, b) => a.name.localeCompare(b.name)) };
}

/** The next free name: A, B, C and on. */
export function nextName(names: readonly string[]): string {
  for (let n = 0; ; n++) {
    const name = `${BEGINS}${String.fromCharCode(65 + (n % 26))}${n >= 26 ? Math.floor(n / 26) + 1 : ""}`;
    if (!names.includes(name)) return name;
  }
}

type Props = {
  page: PageView;
  saved: boolean;
  found: ProposalDoc | undefined;
  alternatives: ReturnType<typeof useAlternatives>;
  returnTo: (revision: number, plan: PlanDoc) => void;
  onCompare: (name: string) => void;
};

/** Keeps the page as it is now as an alternative, and takes one up again. Nothing is lost by either. */
export function Alternatives({ page, saved, found, alternatives, returnTo, onCompare }: Props) {
  const queries = useQueryClient();
  const mayChange = useMayChange();
  const refresh = () => {
    queries.invalidateQueries({ queryKey: ["history", page.id] });
    queries.invalidateQueries({ queryKey: ["versions", page.id] });
  };
  const keep = useMutation({
    mutationFn: () => api.nameVersion(page.id, page.revision, nextName(alternatives.names)),
    onSuccess: refresh,
  });
  const drop = useMutation({ mutationFn: (name: string) => api.unnameVersion(page.id, name), onSuccess: refresh });
  const error = keep.error ?? drop.error;
  return (
    <section aria-labelledby="alternatives">
      <div className="flex flex-wrap items-center gap-3">
        <h2 id="alternatives">Alternatives</h2>
        {mayChange && (
          <button
            type="button"
            className="button"
            disabled={!saved || !found || keep.isPending}
            onClick={() => keep.mutate()}
          >
            Keep this as one
          </button>
        )}
        {alternatives.kept.length === 0 && (
          <span className="text-second">Keep the page as it is, go on another way, and choose later.</span>
        )}
      </div>
      {error && (
        <p role="alert" className="text-measure">
          {error.message}
        </p>
      )}
      <ul className="mt-1 flex flex-wrap gap-2.5">
        {alternatives.kept.map((k) => (
          <li key={k.name} className="grid content-start gap-1 p-1">
            <Thumbnail
              canvas={k.proposal.layout.canvas}
              blocks={k.proposal.layout.blocks}
              width={120}
              height={76}
              label={k.name}
            />
            <span className="text-[13px] font-semibold">{k.name}</span>
            <span className="flex gap-2 text-[13px]">
              {mayChange && (
                <button
                  type="button"
                  className="link"
                  aria-label={`Take ${k.name}`}
                  onClick={() => returnTo(k.revision, k.plan)}
                >
                  take it
                </button>
              )}
              <button type="button" className="link" aria-label={`Compare ${k.name}`} onClick={() => onCompare(k.name)}>
                compare
              </button>
              {mayChange && (
                <button
                  type="button"
                  className="link"
                  aria-label={`Let ${k.name} go`}
                  onClick={() => drop.mutate(k.name)}
                >
                  let go
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
