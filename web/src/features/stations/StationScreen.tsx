import { useQuery } from "@tanstack/react-query";
import { useParams } from "@tanstack/react-router";
import { Suspense, useMemo, useState } from "react";
import { api, newKey, type PageView, type PlanDoc } from "@/api/client";
import { HistoryPanel } from "@/features/history/HistoryPanel";
import { useMayChange, useMe } from "@/features/people/useMe";
import { ConflictDialog } from "@/features/plan/ConflictDialog";
import { findDraft } from "@/features/plan/drafts";
import { type Draft, type PlanEvent, shownPlan } from "@/features/plan/planState";
import { SaveState } from "@/features/plan/SaveState";
import type { StationProps } from "@/features/plan/stationProps";
import { usePlan } from "@/features/plan/usePlan";
import { looksOf } from "@/features/stash/looks";
import { useStashById } from "@/features/stash/useStash";
import { BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { PapersOf } from "@/shared/drawing/papers";
import { imagesOf, PhotoImagesOf } from "@/shared/drawing/photoImages";
import { Failed } from "@/shared/ui/Failed";
import { isForPage } from "@/shared/ui/letterKeys";
import { useKeyBindings } from "@/shared/ui/useKeyBindings";
import { stationOf } from "./registry";
import { Tape } from "./Tape";

/** A page at one of its stations. */
export function StationScreen() {
  const { pageId } = useParams({ from: "/pages/$pageId/$station" });
  const person = useMe().data?.id ?? "";
  const page = useQuery({
    queryKey: ["page", pageId],
    queryFn: async () => ({
      page: (await api.page(pageId)) as PageView,
      draft: (await findDraft<Draft>(person, pageId))?.draft,
    }),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  // A later look that fails leaves the editor, and what is unsaved in it, where it is.
  if (page.isLoadingError) {
    return (
      <main>
        <h1 className="sr-only">The page can't be shown</h1>
        <Failed error={page.error} onRetry={() => page.refetch()} />
      </main>
    );
  }
  if (!page.data) return <p className="p-6 text-second">Fetching the page…</p>;
  return <OpenPage key={pageId} page={page.data.page} draft={page.data.draft} />;
}

function OpenPage({ page, draft }: { page: PageView; draft: Draft | undefined }) {
  const { station } = useParams({ from: "/pages/$pageId/$station" });
  const { state, dispatch } = usePlan(page, draft);
  const [history, setHistory] = useState(false);
  const mayChange = useMayChange();
  const plan = shownPlan(state);
  const acts = useMemo(() => {
    const act = (event: PlanEvent) => {
      if (mayChange) dispatch(event);
    };
    return {
      changePlan: (next: PlanDoc, reason: string) =>
        act({ type: "changed", station, plan: next, reason, key: newKey() }),
      undo: () => act({ type: "undo", station, key: newKey() }),
      redo: () => act({ type: "redo", station, key: newKey() }),
      returnTo: (to: number, then: PlanDoc) => act({ type: "return", station, to, plan: then, key: newKey() }),
    };
  }, [dispatch, mayChange, station]);
  useHistoryKey(() => setHistory((h) => !h));
  const saving = (
    <SaveState
      state={state}
      station={station}
      onUndo={acts.undo}
      onRedo={acts.redo}
      mayChange={mayChange}
      onHistory={() => setHistory(true)}
    />
  );
  const props = { page: state.page, plan, saved: state.status === "saved", ...acts };
  const numbers = useMemo(() => numbersOf(plan.sketch.sketch.blocks), [plan.sketch.sketch.blocks]);
  const photos = plan.photos?.photos;
  const images = useMemo(() => imagesOf(Array.isArray(photos) ? photos : undefined), [photos]);
  const stash = useStashById();
  const looks = useMemo(() => looksOf(plan.papers, stash, plan.unit), [plan.papers, plan.unit, stash]);
  return (
    <BlockNumbers numbers={numbers}>
      <PhotoImagesOf value={images}>
        <PapersOf value={looks}>
          <div className="flex min-h-screen flex-col min-[900px]:h-screen">
            <Tape
              page={state.page}
              plan={plan}
              current={station}
              changePlan={acts.changePlan}
              mayChange={mayChange}
              saving={saving}
            />
            <AtStation {...props} station={station} />
            <ConflictDialog state={state} dispatch={dispatch} />
            <HistoryPanel
              pageId={page.id}
              revision={state.page.revision}
              open={history}
              onClose={() => setHistory(false)}
              returnTo={acts.returnTo}
            />
          </div>
        </PapersOf>
      </PhotoImagesOf>
    </BlockNumbers>
  );
}

function AtStation({ station, ...props }: StationProps & { station: string }) {
  const here = stationOf(station);
  if (!here) return <Failed error={new Error("There is no such station.")} />;
  return (
    <Suspense fallback={<p className="p-6 text-second">Fetching the station…</p>}>
      <here.screen {...props} />
    </Suspense>
  );
}

/** H on the page opens its history. */
function useHistoryKey(toggle: () => void) {
  useKeyBindings({ h: (e) => isForPage(e) && toggle() });
}
