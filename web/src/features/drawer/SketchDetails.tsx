import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { ApiError, api, fieldError, type PageView, type SketchView, takeAway } from "@/api/client";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { useOnce } from "@/shared/query/useOnce";
import { Ask } from "@/shared/ui/Ask";
import { Menu } from "@/shared/ui/Menu";
import { SizeText } from "@/shared/ui/SizeText";

type Props = { sketch: SketchView; mayChange: boolean; onTag: (tag: string) => void };

function sourceOf(origin: { maker?: string; how?: string } | undefined): string {
  const by = origin?.maker ? ` by ${origin.maker}` : "";
  if (origin?.how === "scraplift") return `Lifted from a page${by}`;
  if (origin?.how === "challenge") return `Published${by}`;
  return by ? `Drawn${by}` : "Our own";
}

const dayOf = (at: string) =>
  new Date(at).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });

/** The sketch that was taken out: what it is, the pages made from it, and the page that may be started from it. */
export function SketchDetails({ sketch, mayChange, onTag }: Props) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [renaming, setRenaming] = useState(false);
  const [tagging, setTagging] = useState(false);
  const [showPages, setShowPages] = useState(false);
  const start = useOnce(
    (of: { id: string; name: string }, key) => api.startPage(of.id, of.name, key),
    (page) => {
      queries.invalidateQueries({ queryKey: ["pages"] });
      navigate({ to: "/pages/$pageId/$station", params: { pageId: (page as PageView).id, station: "fit" } });
    },
  );
  const refresh = () => {
    setRenaming(false);
    setTagging(false);
    queries.invalidateQueries({ queryKey: ["sketches"] });
  };
  // Somebody else may have changed it meanwhile: what she sees then is theirs, and hers is still typed in.
  const [theirs, setTheirs] = useState<SketchView>();
  const change = useMutation({
    mutationFn: (c: { name?: string; archived?: boolean; tags?: string[] }) =>
      api.changeSketch(sketch.id, { ...c, revision: (theirs ?? sketch).revision }),
    onSuccess: () => {
      setTheirs(undefined);
      refresh();
    },
    onError: (error) => {
      const newest = error instanceof ApiError && error.problem.newest_sketch;
      if (newest) setTheirs(newest as SketchView);
    },
  });
  const meanwhile =
    theirs &&
    `Meanwhile it was changed: it is called “${theirs.name}”, tags ${theirs.tags.join(", ") || "none"}. Set yours all the same?`;
  const copy = useOnce(
    (stands: { turn?: number; flip?: string }, key) => api.copySketch(sketch.id, key, stands),
    refresh,
  );
  const { canvas, unit, blocks } = sketch.document;
  const slots = sketch.reading.photo_slots;
  const origin = (sketch.document as { origin?: { maker?: string; how?: string } }).origin;
  const error = start.error ?? copy.error ?? (renaming || tagging ? null : change.error);
  return (
    <section aria-label={sketch.name} className="grid gap-1">
      <div className="flex gap-3">
        <Thumbnail canvas={canvas} blocks={blocks} width={130} height={140} label={`The sketch ${sketch.name}`} />
        <div className="min-w-0 text-[13.5px] leading-snug">
          <p>
            <SizeText page={canvas.page} pages={canvas.pages} unit={unit} />
          </p>
          <p className="text-second">
            {slots} {slots === 1 ? "photo" : "photos"}, {sketch.reading.lines.length} lines
          </p>
          <p className="text-second">
            {sourceOf(origin)}, {dayOf(sketch.made_at)}
          </p>
        </div>
      </div>
      {sketch.tags.length > 0 && (
        <ul className="mt-0.5 flex flex-wrap gap-1">
          {sketch.tags.map((t) => (
            <li key={t}>
              <button type="button" className="border border-hairline px-1.5 text-[13px]" onClick={() => onTag(t)}>
                {t}
              </button>
            </li>
          ))}
        </ul>
      )}
      {sketch.pages > 0 && (
        <button
          type="button"
          className="link justify-self-start"
          aria-expanded={showPages}
          onClick={() => setShowPages((s) => !s)}
        >
          {sketch.pages === 1 ? "1 page" : `${sketch.pages} pages`} made from it
        </button>
      )}
      {showPages && <PagesOf id={sketch.id} />}
      <div className="mt-1 flex flex-wrap gap-2">
        {mayChange && (
          <button
            type="button"
            className="button button-first"
            disabled={start.isPending}
            onClick={() => start.mutate({ id: sketch.id, name: sketch.name })}
          >
            Start a page
          </button>
        )}
        <Link to="/sketches/$sketchId" params={{ sketchId: sketch.id }} className="button">
          {mayChange ? "Change it" : "Look closer"}
        </Link>
        <Menu
          label={`More for ${sketch.name}`}
          items={[
            mayChange && { label: "Rename", onSelect: () => setRenaming(true) },
            mayChange && { label: "Tags", onSelect: () => setTagging(true) },
            mayChange && { label: "Copy", onSelect: () => copy.mutate({}) },
            mayChange && {
              label: canvas.pages === 1 ? "Copy, turned a quarter" : "Copy, turned round",
              onSelect: () => copy.mutate({ turn: canvas.pages === 1 ? 90 : 180 }),
            },
            mayChange && { label: "Copy, flipped left to right", onSelect: () => copy.mutate({ flip: "across" }) },
            { label: "Download (JSON)", href: takeAway.sketch(sketch.id) },
            mayChange && {
              label: sketch.archived ? "Back into the drawer" : "Archive",
              onSelect: () => change.mutate({ archived: !sketch.archived }),
            },
          ]}
        />
      </div>
      {error && (
        <p role="alert" className="mt-1 text-measure">
          {error.message}
        </p>
      )}
      {renaming && (
        <Ask
          title="Rename the sketch"
          label="Name"
          value={sketch.name}
          yes="Rename"
          error={meanwhile ?? fieldError(change.error, "name")}
          onYes={(name) => change.mutate({ name })}
          onClose={() => setRenaming(false)}
        />
      )}
      {tagging && (
        <Ask
          title={`Tags of ${sketch.name}`}
          label="Tags, with commas between"
          value={sketch.tags.join(", ")}
          yes="Save tags"
          error={meanwhile ?? fieldError(change.error, "tags") ?? fieldError(change.error, "tags[0]")}
          onYes={(text) =>
            change.mutate({
              tags: text
                .split(",")
                .map((t) => t.trim())
                .filter(Boolean),
            })
          }
          onClose={() => setTagging(false)}
        />
      )}
    </section>
  );
}

function PagesOf({ id }: { id: string }) {
  const pages = useQuery({ queryKey: ["pages", "of", id], queryFn: () => api.pagesOfSketch(id) });
  if (pages.isLoadingError) return <p role="alert">{pages.error.message}</p>;
  return (
    <ul className="ml-3 list-disc pl-2">
      {pages.data?.map((p) => (
        <li key={p.id}>
          <Link to="/pages/$pageId/$station" params={{ pageId: p.id, station: "fit" }} className="link">
            {p.name}
          </Link>
        </li>
      ))}
    </ul>
  );
}
