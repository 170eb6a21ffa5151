import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { api, type FitDoc, type PageView } from "@/api/client";
import { kindWord } from "@/shared/drawing/geometry";
import { useOnce } from "@/shared/query/useOnce";

type Props = { page: PageView; fit: FitDoc; ready: boolean };

/** The back of a page that can be seen through: what shows is mirrored and fixed, the rest is another sketch. */
export function BackOfPage({ page, fit, ready }: Props) {
  const [open, setOpen] = useState(false);
  if (fit.target.pages !== 1) return null;
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer font-semibold">The back of this page</summary>
      {open && <Choose page={page} fit={fit} ready={ready} />}
    </details>
  );
}

function Choose({ page, fit, ready }: Props) {
  const navigate = useNavigate();
  const sketches = useQuery({ queryKey: ["sketches", "", false], queryFn: () => api.sketches("", false) });
  const one = (sketches.data ?? []).filter((s) => s.document.canvas.pages === 1);
  const [sketch, setSketch] = useState("");
  const [through, setThrough] = useState<string[]>([]);
  const start = useOnce(
    (of: { sketch: string; see_through: string[] }, key) =>
      api.startBack({ ...of, name: `${page.name}, back`.slice(0, 80), back_of: page.id }, key),
    (made) => {
      if (made) navigate({ to: "/pages/$pageId/$station", params: { pageId: made.id, station: "fit" } });
    },
  );
  return (
    <div className="mt-1.5 grid grid-cols-[minmax(0,1fr)] gap-1.5">
      <p className="text-second">
        For acetate, vellum and windows: what you can see through lies on the back mirrored, held where it shows.
      </p>
      <fieldset className="flex flex-wrap gap-x-3 gap-y-1">
        <legend className="text-second">Can be seen through</legend>
        {fit.sketch.blocks.map((b, n) => (
          <label key={b.id} className="flex items-center gap-1">
            <input
              type="checkbox"
              checked={through.includes(b.id)}
              onChange={(e) =>
                setThrough((now) => (e.target.checked ? [...now, b.id] : now.filter((id) => id !== b.id)))
              }
            />
            {n + 1} {kindWord(b.kind)}
          </label>
        ))}
      </fieldset>
      <label className="flex min-w-0 items-center gap-2">
        <span className="text-second">Sketch for the back</span>
        <select
          className="field min-w-0 flex-1 py-1"
          value={sketch || (one[0]?.id ?? "")}
          onChange={(e) => setSketch(e.target.value)}
        >
          {one.map((s) => (
            <option key={s.id} value={s.id}>
              {s.document.name}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="button justify-self-start"
        disabled={!ready || through.length === 0 || one.length === 0 || start.isPending}
        onClick={() => start.mutate({ sketch: sketch || (one[0]?.id ?? ""), see_through: through })}
      >
        Lay out the back
      </button>
      {start.isError && (
        <p role="alert" className="text-measure">
          {start.error.message}
        </p>
      )}
    </div>
  );
}
