import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api, fieldError, type PlanDoc, type RevisionView } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { stationOf } from "@/features/stations/registry";
import { Ask } from "@/shared/ui/Ask";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";

type Props = {
  pageId: string;
  revision: number;
  open: boolean;
  onClose: () => void;
  returnTo: (revision: number, plan: PlanDoc) => void;
};

/** Everything that was ever decided on a page: look, name, return. Nothing is taken away by returning. */
export function HistoryPanel({ pageId, revision, open, onClose, returnTo }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-10 bg-black/40" />
        <Dialog.Content className="fixed inset-y-0 right-0 z-10 flex w-[26rem] max-w-[96vw] flex-col gap-2 border-hairline border-l bg-sheet p-4">
          <div className="flex items-center justify-between">
            <Dialog.Title className="text-[18px]">History</Dialog.Title>
            <Dialog.Close className="button">Close</Dialog.Close>
          </div>
          <Dialog.Description className="text-second">
            Every change, newest first. Returning to one adds a new version; nothing is taken away.
          </Dialog.Description>
          {open && <Revisions pageId={pageId} revision={revision} onClose={onClose} returnTo={returnTo} />}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Revisions({ pageId, revision, onClose, returnTo }: Omit<Props, "open">) {
  const queries = useQueryClient();
  const key = ["history", pageId, revision];
  const mayChange = useMayChange();
  const history = useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) => api.history(pageId, pageParam),
    initialPageParam: undefined as number | undefined,
    // Revisions are numbered from 1 without a gap.
    getNextPageParam: (last) => {
      const oldest = last.at(-1)?.revision ?? 1;
      return oldest > 1 ? oldest : undefined;
    },
  });
  const versions = useQuery({ queryKey: ["versions", pageId], queryFn: () => api.versions(pageId) });
  const [naming, setNaming] = useState<RevisionView>();
  const refresh = () => {
    setNaming(undefined);
    queries.invalidateQueries({ queryKey: ["history", pageId] });
    queries.invalidateQueries({ queryKey: ["versions", pageId] });
  };
  const name = useMutation({
    mutationFn: (given: { revision: number; name: string }) => api.nameVersion(pageId, given.revision, given.name),
    onSuccess: refresh,
  });
  const unname = useMutation({ mutationFn: (given: string) => api.unnameVersion(pageId, given), onSuccess: refresh });
  const goBack = useMutation({
    mutationFn: (to: number) => api.revision(pageId, to),
    onSuccess: (found) => {
      returnTo(found.revision, found.plan as PlanDoc);
      onClose();
    },
  });
  if (history.isLoadingError) return <Failed error={history.error} onRetry={() => history.refetch()} />;
  if (!history.data) return <Notice>Fetching the history…</Notice>;
  return (
    <>
      {goBack.isError && <p role="alert">{goBack.error.message}</p>}
      {versions.data && versions.data.length > 0 && (
        <section aria-labelledby="named" className="border-hairline border-t pt-2">
          <h3 id="named">Named versions</h3>
          <ul className="flex max-h-[7.5rem] flex-wrap gap-1.5 overflow-y-auto py-1">
            {versions.data.map((v) => (
              <li key={v.name}>
                <button
                  type="button"
                  className="button"
                  disabled={!mayChange || v.revision === revision}
                  title={`Version ${v.revision}, named by ${v.made_by}`}
                  onClick={() => goBack.mutate(v.revision)}
                >
                  {v.revision === revision ? `${v.name}, as it is now` : `Return to ${v.name}`}
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <ol className="min-h-0 flex-1 overflow-y-auto">
        {history.data.pages.flat().map((r) => (
          <li key={r.revision} className="border-hairline border-t py-2">
            <div className="flex items-baseline gap-2">
              <span className="w-8 text-right font-bold">{r.revision}</span>
              <span className="flex-1">
                {r.names.map((n) => (
                  <span key={n} className="mr-1 rounded-[2px] bg-tape px-1.5 font-semibold text-tape-ink">
                    {n}
                    {mayChange && (
                      <button
                        type="button"
                        className="ml-1 cursor-pointer"
                        aria-label={`Take the name ${n} off`}
                        onClick={() => unname.mutate(n)}
                      >
                        ×
                      </button>
                    )}
                  </span>
                ))}
                <Sentence text={r.reason} />
              </span>
            </div>
            <div className="mt-1 ml-10 flex flex-wrap items-center gap-2 text-[13px]">
              <span className="text-second">
                {r.author} at {stationOf(r.station)?.label ?? r.station},{" "}
                {new Date(r.made_at).toLocaleString("en", { dateStyle: "medium", timeStyle: "short" })}
              </span>
              {mayChange && (
                <button type="button" className="link" onClick={() => setNaming(r)}>
                  Name it
                </button>
              )}
              {mayChange && r.revision !== revision && (
                <button type="button" className="link" onClick={() => goBack.mutate(r.revision)}>
                  Return to it
                </button>
              )}
              {r.revision === revision && <span className="font-semibold">as it is now</span>}
            </div>
          </li>
        ))}
        {history.hasNextPage && (
          <li className="border-hairline border-t py-2">
            <button
              type="button"
              className="button"
              disabled={history.isFetchingNextPage}
              onClick={() => history.fetchNextPage()}
            >
              {history.isFetchingNextPage ? "Fetching…" : "Show earlier ones"}
            </button>
          </li>
        )}
      </ol>
      {naming && (
        <Ask
          title={`Name version ${naming.revision}`}
          label="Name"
          value={naming.names[0] ?? ""}
          yes="Name it"
          error={fieldError(name.error, "name") ?? name.error?.message}
          onYes={(given) => name.mutate({ revision: naming.revision, name: given })}
          onClose={() => setNaming(undefined)}
        />
      )}
    </>
  );
}
