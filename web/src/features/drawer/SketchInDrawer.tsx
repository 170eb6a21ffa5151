import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { api, fieldError, newKey, type PageView, type SketchView, takeAway } from "@/api/client";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { Ask } from "@/shared/ui/Ask";
import { Menu } from "@/shared/ui/Menu";
import { SizeText } from "@/shared/ui/SizeText";

/** A sketch as a card: what it is, the pages made from it, and the page that may be started from it. */
export function SketchInDrawer({ sketch, mayChange }: { sketch: SketchView; mayChange: boolean }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [renaming, setRenaming] = useState(false);
  const [showPages, setShowPages] = useState(false);
  const start = useMutation({
    mutationFn: () => api.startPage(sketch.id, sketch.name, newKey()),
    onSuccess: (page) => {
      queries.invalidateQueries({ queryKey: ["pages"] });
      navigate({ to: "/pages/$pageId/$station", params: { pageId: (page as PageView).id, station: "fit" } });
    },
  });
  const refresh = () => {
    setRenaming(false);
    queries.invalidateQueries({ queryKey: ["sketches"] });
  };
  const change = useMutation({
    mutationFn: (c: { name?: string; archived?: boolean }) => api.changeSketch(sketch.id, c),
    onSuccess: refresh,
  });
  const copy = useMutation({ mutationFn: () => api.copySketch(sketch.id, newKey()), onSuccess: refresh });
  const { canvas, unit, blocks } = sketch.document;
  const slots = sketch.reading.photo_slots;
  const origin = (sketch.document as { origin?: { maker?: string; how?: string } }).origin;
  const error = start.error ?? copy.error ?? (renaming ? null : change.error);
  return (
    <li className="sheet flex w-[232px] flex-col">
      <div className="flex h-[128px] items-center justify-center">
        <Thumbnail canvas={canvas} blocks={blocks} width={200} height={126} label={`The sketch ${sketch.name}`} />
      </div>
      <h2 className="mt-2">{sketch.name}</h2>
      <p className="text-second">
        <SizeText page={canvas.page} pages={canvas.pages} unit={unit} />
      </p>
      <p className="text-second">
        {slots} {slots === 1 ? "photo" : "photos"}, {sketch.reading.lines.length} lines
        {origin?.maker ? `, by ${origin.maker}` : ""}
      </p>
      {typeof sketch.changes === "number" && (
        <p className="font-semibold">
          {sketch.changes === 0
            ? "Suits your photos as drawn"
            : `${sketch.changes} ${sketch.changes === 1 ? "change" : "changes"} for your photos`}
        </p>
      )}
      {sketch.pages > 0 && (
        <button
          type="button"
          className="link self-start"
          aria-expanded={showPages}
          onClick={() => setShowPages((s) => !s)}
        >
          {sketch.pages === 1 ? "1 page" : `${sketch.pages} pages`} made from it
        </button>
      )}
      {showPages && <PagesOf id={sketch.id} />}
      <div className="mt-auto flex gap-2 pt-2">
        {mayChange && (
          <button type="button" className="button" disabled={start.isPending} onClick={() => start.mutate()}>
            Start a page
          </button>
        )}
        <Menu
          label={`More for ${sketch.name}`}
          items={[
            {
              label: mayChange ? "Draw on" : "Look closer",
              onSelect: () => navigate({ to: "/sketches/$sketchId", params: { sketchId: sketch.id } }),
            },
            mayChange && { label: "Rename", onSelect: () => setRenaming(true) },
            mayChange && { label: "Copy", onSelect: () => copy.mutate() },
            { label: "Take away (JSON)", href: takeAway.sketch(sketch.id) },
            mayChange && {
              label: sketch.archived ? "Take out again" : "Put away",
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
          error={fieldError(change.error, "name")}
          onYes={(name) => change.mutate({ name })}
          onClose={() => setRenaming(false)}
        />
      )}
    </li>
  );
}

function PagesOf({ id }: { id: string }) {
  const pages = useQuery({ queryKey: ["pages", "of", id], queryFn: () => api.pagesOfSketch(id) });
  if (pages.isError) return <p role="alert">{pages.error.message}</p>;
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
