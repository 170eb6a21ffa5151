import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "@tanstack/react-router";
import { useReducer, useState } from "react";
import { api, newKey, type PageView, type SketchDoc, type SketchView } from "@/api/client";
import { useMayChange, useMe } from "@/features/people/useMe";
import { Failed } from "@/shared/ui/Failed";
import { Field } from "@/shared/ui/Field";
import { Notice } from "@/shared/ui/Notice";
import { blank } from "./model";
import { isLifted, OriginFields } from "./OriginFields";
import { SketchEditor } from "./SketchEditor";

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
  if (sketch.isError) return <Failed error={sketch.error} onRetry={() => sketch.refetch()} />;
  if (!sketch.data) {
    return (
      <main className="p-[18px]">
        <Notice>Fetching the sketch…</Notice>
      </main>
    );
  }
  return <Editing key={sketchId} start={sketch.data.document} of={sketch.data} />;
}

type State = { past: readonly SketchDoc[]; now: SketchDoc; future: readonly SketchDoc[] };
type Event = { type: "changed"; sketch: SketchDoc } | { type: "undo" } | { type: "redo" };

function reduce(state: State, event: Event): State {
  if (event.type === "changed") {
    return event.sketch === state.now ? state : { past: [...state.past, state.now], now: event.sketch, future: [] };
  }
  const [from, to] = event.type === "undo" ? [state.past, state.future] : [state.future, state.past];
  const next = from.at(-1);
  if (!next) return state;
  const left = from.slice(0, -1);
  const right = [...to, state.now];
  return event.type === "undo" ? { past: left, now: next, future: right } : { past: right, now: next, future: left };
}

function Editing({ start, of }: { start: SketchDoc; of?: SketchView }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const mayChange = useMayChange();
  const [state, dispatch] = useReducer(reduce, { past: [], now: start, future: [] });
  const sketch = state.now;
  /** The document as it lies in the drawer. */
  const [kept, setKept] = useState(of ? start : undefined);
  const saved = () => queries.invalidateQueries({ queryKey: ["sketches"] });
  const keep = useMutation({
    mutationFn: () => (of ? api.rewriteSketch(of.id, sketch) : api.addSketch(sketch, newKey())),
    onSuccess: (kept) => {
      saved();
      setKept(sketch);
      queries.setQueryData(["sketch", (kept as SketchView).id], kept);
      navigate({ to: "/sketches/$sketchId", params: { sketchId: (kept as SketchView).id } });
    },
  });
  const keepAsNew = useMutation({
    mutationFn: () => api.addSketch({ ...sketch, name: `${sketch.name}, another` }, newKey()),
    onSuccess: (kept) => {
      saved();
      navigate({ to: "/sketches/$sketchId", params: { sketchId: (kept as SketchView).id } });
    },
  });
  const begin = useMutation({
    mutationFn: async () => {
      const kept = (of ? await api.rewriteSketch(of.id, sketch) : await api.addSketch(sketch, newKey())) as SketchView;
      return api.startPage(kept.id, kept.name, newKey());
    },
    onSuccess: (page) => {
      saved();
      navigate({ to: "/pages/$pageId/$station", params: { pageId: (page as PageView).id, station: "fit" } });
    },
  });
  const error = keep.error ?? keepAsNew.error ?? begin.error;
  const empty = sketch.blocks.length === 0;
  const changed = of ? sketch !== kept : state.past.length > 0;
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
        onChange={(e) => dispatch({ type: "changed", sketch: { ...sketch, name: e.target.value } })}
      />
      {mayChange && (
        <div className="flex flex-wrap gap-1.5">
          <button
            type="button"
            className="button button-first"
            disabled={keep.isPending || (Boolean(of) && !changed)}
            onClick={() => keep.mutate()}
          >
            {of ? "Keep" : "Put into the drawer"}
          </button>
          {of && (
            <button type="button" className="button" disabled={keepAsNew.isPending} onClick={() => keepAsNew.mutate()}>
              Keep as another
            </button>
          )}
          <button type="button" className="button" disabled={empty || begin.isPending} onClick={() => begin.mutate()}>
            Start a page
          </button>
          <button
            type="button"
            className="button"
            disabled={state.past.length === 0}
            onClick={() => dispatch({ type: "undo" })}
          >
            Undo
          </button>
          <button
            type="button"
            className="button"
            disabled={state.future.length === 0}
            onClick={() => dispatch({ type: "redo" })}
          >
            Redo
          </button>
        </div>
      )}
      <OriginFields
        sketch={sketch}
        mayChange={mayChange}
        onChange={(next) => dispatch({ type: "changed", sketch: next })}
      />
      <p role="status" className="text-second">
        {changed ? "Not kept yet." : of ? "As it lies in the drawer." : "Type a line, or draw."}
      </p>
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
      onChange={(next) => dispatch({ type: "changed", sketch: next })}
      mayChange={mayChange}
      top={top}
      over={of?.picture && isLifted(sketch) ? of.picture : undefined}
    />
  );
}
