import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState } from "react";
import { api, fieldError, type PlanDoc, type RevisionView } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { stationOf } from "@/features/stations/registry";
import { Ask } from "@/shared/ui/Ask";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";

type Props = {
  pageId: string;
  revision: number;
  open: boolean;
  onClose: () => void;
  returnTo: (revision: number, plan: PlanDoc) => void;
};

/** Everything that was ever decided on a page: look, name, return. Nothing is taken away by returning. */
export function HistoryPanel({ pageId, revision, open, onClose, returnTo }: Props) {
  if (!open) return null;
  return (
    <Sheet
      title="History"
      beside
      onClose={onClose}
      heading={<CloseSheet className="ml-auto" />}
      about="Every change, newest first. Returning to one adds a new version; nothing is taken away."
    >
      <Revisions pageId={pageId} revision={revision} onClose={onClose} returnTo={returnTo} />
    </Sheet>
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
  const list = useRef<HTMLDivElement>(null);
  const revisions = history.data?.pages.flat() ?? [];
  const rows = useVirtualizer({
    count: revisions.length,
    getScrollElement: () => list.current,
    estimateSize: () => 66,
    getItemKey: (index) => revisions[index]?.revision ?? index,
    overscan: 8,
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
      <div ref={list} className="min-h-0 flex-1 overflow-y-auto">
        <ol className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map(({ index, start, key: row }) => (
            <li
              key={row}
              ref={rows.measureElement}
              data-index={index}
              aria-setsize={revisions.length}
              aria-posinset={index + 1}
              className="absolute inset-x-0 border-hairline border-t py-2"
              style={{ transform: `translateY(${start}px)` }}
            >
              <Revision
                r={revisions[index] as RevisionView}
                isNewest={revisions[index]?.revision === revision}
                mayChange={mayChange}
                onName={() => setNaming(revisions[index])}
                onUnname={(given) => unname.mutate(given)}
                onReturn={() => goBack.mutate(revisions[index]?.revision ?? revision)}
              />
            </li>
          ))}
        </ol>
        {history.hasNextPage && (
          <p className="border-hairline border-t py-2">
            <button
              type="button"
              className="button"
              disabled={history.isFetchingNextPage}
              onClick={() => history.fetchNextPage()}
            >
              {history.isFetchingNextPage ? "Fetching…" : "Show earlier ones"}
            </button>
          </p>
        )}
      </div>
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

type RevisionProps = {
  r: RevisionView;
  isNewest: boolean;
  mayChange: boolean;
  onName: () => void;
  onUnname: (name: string) => void;
  onReturn: () => void;
};

function Revision({ r, isNewest, mayChange, onName, onUnname, onReturn }: RevisionProps) {
  return (
    <>
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
                  onClick={() => onUnname(n)}
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
          <button type="button" className="link" onClick={onName}>
            Name it
          </button>
        )}
        {mayChange && !isNewest && (
          <button type="button" className="link" onClick={onReturn}>
            Return to it
          </button>
        )}
        {isNewest && <span className="font-semibold">as it is now</span>}
      </div>
    </>
  );
}
