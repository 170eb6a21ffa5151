import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "@tanstack/react-router";
import { useState } from "react";
import { ApiError, api, type PageView, type SketchDoc, type SketchView } from "@/api/client";
import { useMayChange, useMe } from "@/features/people/useMe";
import { useUnsaved } from "@/features/plan/useUnsaved";
import { useSteps } from "@/shared/query/steps";
import { useOnce } from "@/shared/query/useOnce";
import { Failed } from "@/shared/ui/Failed";
import { Field } from "@/shared/ui/Field";
import { Notice } from "@/shared/ui/Notice";
import { EarlierVersions } from "./EarlierVersions";
import { blank } from "./model";
import { isLifted, OriginFields } from "./OriginFields";
import { SketchEditor } from "./SketchEditor";
import { StaleSketch } from "./StaleSketch";

/** A new sketch, drawn by number or by mouse. */
export function NewSketchScreen() {
  const me = useMe().data;
  if (!me) return null;
  return <Editing start={blank(me.defaults.unit === "mm" ? "mm" : "in")} />;
}

/** A sketch of the drawer. */
export function SketchScreen() {
  const { sketchId } = useParams({ from: "/house/sketches/$sketchId" });
  const sketch = useQuery({ queryKey: ["sketch", sketchId], queryFn: () => api.sketch(sketchId) });
  // A later look that fails leaves the editor, and what is unsaved in it, where it is.
  if (sketch.isLoadingError) return <Failed error={sketch.error} onRetry={() => sketch.refetch()} />;
  if (!sketch.data) {
    return (
      <main className="p-[18px]">
        <Notice>Fetching the sketch…</Notice>
      </main>
    );
  }
  return <Editing key={sketchId} start={sketch.data.document} of={sketch.data} />;
}

function Editing({ start, of }: { start: SketchDoc; of?: SketchView }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const mayChange = useMayChange();
  const state = useSteps(start);
  const sketch = state.now;
  /** The document as it lies in the drawer, and its revision there. */
  const [kept, setKept] = useState(of && { sketch: start, revision: of.revision });
  const [stale, setStale] = useState<SketchView>();
  const changed = kept ? sketch !== kept.sketch : state.past.length > 0;
  const unsaved = useUnsaved<SketchDoc>(
    `sketch ${of?.id ?? "new"}`,
    sketch.name || "A new sketch",
    changed && mayChange ? sketch : undefined,
  );
  const done = (saved: SketchView) => {
    unsaved.letGo();
    setStale(undefined);
    setKept({ sketch, revision: saved.revision });
    queries.invalidateQueries({ queryKey: ["sketches"] });
    queries.setQueryData(["sketch", saved.id], saved);
  };
  /** Saves over a revision, or puts a new sketch into the drawer. Who comes too late sees both. */
  const save = async (given: SketchDoc, key: string, revision = kept?.revision): Promise<SketchView> => {
    if (!of || revision === undefined) return (await api.addSketch(given, key)) as SketchView;
    return api.rewriteSketch(of.id, revision, given).catch((error: Error) => {
      const newest = error instanceof ApiError && error.problem.newest_sketch;
      if (newest) setStale(newest as SketchView);
      throw error;
    });
  };
  const open = (id: string) => navigate({ to: "/sketches/$sketchId", params: { sketchId: id } });
  const keep = useOnce(
    (given: { sketch: SketchDoc; revision?: number }, key) => save(given.sketch, key, given.revision),
    (saved) => {
      done(saved);
      open(saved.id);
    },
  );
  const keepAsNew = useOnce(
    (given: SketchDoc, key) => api.addSketch({ ...given, name: `${given.name}, another` }, key) as Promise<SketchView>,
    (saved) => {
      unsaved.letGo();
      queries.invalidateQueries({ queryKey: ["sketches"] });
      open(saved.id);
    },
  );
  const begin = useOnce(
    async (given: SketchDoc, key) => {
      const saved = changed || !of ? await save(given, key) : of;
      return { saved, page: (await api.startPage(saved.id, saved.name, `${key}-page`)) as PageView };
    },
    ({ saved, page }) => {
      done(saved);
      navigate({ to: "/pages/$pageId/$station", params: { pageId: page.id, station: "fit" } });
    },
  );
  const error = stale ? null : (keep.error ?? keepAsNew.error ?? begin.error);
  const empty = sketch.blocks.length === 0;
  const { found } = unsaved;
  const top = (
    <section aria-labelledby="sketch-name" className="grid gap-2">
      <h1 id="sketch-name" className="sr-only">
        {of ? `Sketch ${sketch.name}` : "New sketch"}
      </h1>
      <Field
        label="Name"
        value={sketch.name ?? ""}
        maxLength={200}
        readOnly={!mayChange}
        onChange={(e) => state.change({ ...sketch, name: e.target.value })}
      />
      {mayChange && (
        <div className="flex flex-wrap gap-1.5">
          <button
            type="button"
            className="button button-first"
            disabled={keep.isPending || (Boolean(of) && !changed)}
            onClick={() => keep.mutate({ sketch })}
          >
            {of ? "Save" : "Put into the drawer"}
          </button>
          {of && (
            <button
              type="button"
              className="button"
              disabled={keepAsNew.isPending}
              onClick={() => keepAsNew.mutate(sketch)}
            >
              Save as another
            </button>
          )}
          <button
            type="button"
            className="button"
            disabled={empty || begin.isPending}
            onClick={() => begin.mutate(sketch)}
          >
            Start a page
          </button>
          <button type="button" className="button" disabled={state.past.length === 0} onClick={() => state.undo()}>
            Undo
          </button>
          <button type="button" className="button" disabled={state.future.length === 0} onClick={() => state.redo()}>
            Redo
          </button>
        </div>
      )}
      <OriginFields sketch={sketch} mayChange={mayChange} onChange={(next) => state.change(next)} />
      <p role="status" className="text-second">
        {changed
          ? "Not saved yet. Kept in this browser meanwhile."
          : of
            ? "As it lies in the drawer."
            : "Type a line, or draw."}
      </p>
      {unsaved.unkept && (
        <p role="alert" className="font-bold text-measure">
          This browser has no room to keep what you draw. Save it before you leave.
        </p>
      )}
      {found && (
        <div role="status" className="grid gap-2 rounded-[3px] border border-pin p-2">
          <p>
            You left this sketch unsaved on{" "}
            {new Date(found.at).toLocaleString("en", { dateStyle: "medium", timeStyle: "short" })}.
          </p>
          <span className="flex gap-1.5">
            <button
              type="button"
              className="button button-first"
              onClick={() => {
                state.change(found.draft);
                unsaved.settle();
              }}
            >
              Go on with it
            </button>
            <button type="button" className="button" onClick={unsaved.settle}>
              Throw it away
            </button>
          </span>
        </div>
      )}
      {of && kept && (
        <EarlierVersions
          id={of.id}
          revision={kept.revision}
          onTake={mayChange ? (earlier) => state.change(earlier) : undefined}
        />
      )}
      {unsaved.question}
      {stale && (
        <StaleSketch
          mine={sketch}
          theirs={stale}
          onSaveMine={() => keep.mutate({ sketch, revision: stale.revision })}
          onSaveAsAnother={() => {
            setStale(undefined);
            keepAsNew.mutate(sketch);
          }}
          onTakeTheirs={() => {
            state.change(stale.document);
            setKept({ sketch: stale.document, revision: stale.revision });
            setStale(undefined);
          }}
        />
      )}
      {error && (
        <p role="alert" className="text-measure">
          {error.message}
        </p>
      )}
      <Link to="/drawer" className="link justify-self-start">
        Back to the drawer
      </Link>
    </section>
  );
  return (
    <SketchEditor
      sketch={sketch}
      onChange={(next) => state.change(next)}
      mayChange={mayChange}
      top={top}
      over={
        isLifted(sketch)
          ? of?.lift
            ? { lift: of.lift }
            : of?.picture
              ? { picture: of.picture }
              : undefined
          : undefined
      }
    />
  );
}
