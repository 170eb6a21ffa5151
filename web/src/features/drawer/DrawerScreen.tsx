import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useDeferredValue, useState } from "react";
import { api, newKey, takeAway } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { SketchInDrawer } from "./SketchInDrawer";

/** All the team's sketches as cards. */
export function DrawerScreen() {
  const [search, setSearch] = useState("");
  const [archived, setArchived] = useState(false);
  const [photos, setPhotos] = useState("");
  const [upright, setUpright] = useState("");
  const [pages, setPages] = useState(0);
  const wanted = useDeferredValue(search.trim());
  const count = Number(photos) || 0;
  const standing = Math.min(count, Number(upright) || 0);
  const suit = count > 0 ? { photos: Math.min(count, 60), upright: Math.min(standing, 60) } : undefined;
  const mayChange = useMayChange();
  const sketches = useQuery({
    queryKey: ["sketches", wanted, archived, suit],
    queryFn: () => api.sketches(wanted, archived, suit),
    placeholderData: (before) => before,
  });
  const shown = (sketches.data ?? []).filter((s) => pages === 0 || s.document.canvas.pages === pages);
  return (
    <main className="grid gap-4 p-[18px] pt-2">
      <div className="flex flex-wrap items-center gap-3">
        <h1 className="text-[20px]">{archived ? "Put away" : "Sketch drawer"}</h1>
        <label className="flex items-center gap-2">
          <span className="text-second">Search</span>
          <input
            type="search"
            className="field w-[16rem] px-2 py-1"
            placeholder="name, maker, tag or note"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
        </label>
        <label className="flex items-center gap-1.5">
          <span className="sr-only">How many pages</span>
          <select className="field py-1" value={pages} onChange={(e) => setPages(Number(e.target.value))}>
            <option value={0}>one page or two</option>
            <option value={1}>one page</option>
            <option value={2}>two pages</option>
          </select>
        </label>
        <fieldset className="flex items-center gap-1.5">
          <legend className="sr-only">Sketches that suit my photos</legend>
          <label className="flex items-center gap-1.5">
            <span className="text-second">for</span>
            <input
              inputMode="numeric"
              className="field w-[3rem] px-2 py-1 text-right"
              aria-label="photos at hand"
              value={photos}
              onChange={(e) => setPhotos(e.target.value.replace(/\D/g, "").slice(0, 2))}
            />
          </label>
          <label className="flex items-center gap-1.5">
            <span className="text-second">photos,</span>
            <input
              inputMode="numeric"
              className="field w-[3rem] px-2 py-1 text-right"
              aria-label="of them upright"
              value={upright}
              onChange={(e) => setUpright(e.target.value.replace(/\D/g, "").slice(0, 2))}
            />
          </label>
          <span className="text-second">upright</span>
        </fieldset>
        <button type="button" className="button" aria-pressed={archived} onClick={() => setArchived((a) => !a)}>
          Put away
        </button>
        <span className="ml-auto flex flex-wrap gap-2">
          {mayChange && (
            <Link to="/drawer/new" className="button button-first">
              Draw a sketch
            </Link>
          )}
          {mayChange && (
            <Link to="/drawer/picture" className="button">
              From a picture
            </Link>
          )}
          {mayChange && <GiveSketches />}
          <a className="button" href={takeAway.sketches()} download>
            Take all (zip)
          </a>
        </span>
      </div>
      {sketches.isError && <Failed error={sketches.error} onRetry={() => sketches.refetch()} />}
      {sketches.isPending && <Notice>Fetching the sketches…</Notice>}
      {sketches.data?.length === 0 && (
        <Notice>
          {wanted
            ? `No sketch is about “${wanted}”.`
            : archived
              ? "Nothing is put away."
              : "The drawer is empty. Give a sketch file to begin with."}
        </Notice>
      )}
      <ul className="flex flex-wrap gap-4">
        {shown.map((sketch) => (
          <SketchInDrawer key={sketch.id} sketch={sketch} mayChange={mayChange} onTag={setSearch} />
        ))}
      </ul>
    </main>
  );
}

/** Takes one or many sketch files, or an archive of them. A file that is broken is told with everything that is wrong in
 * it, and none of that file comes in. */
function GiveSketches() {
  const queries = useQueryClient();
  const give = useMutation({
    mutationFn: async (files: readonly File[]) => {
      const added: string[] = [];
      for (const file of files) {
        const sketches = await api.importSketches(file, newKey()).catch((error: Error) => {
          throw Object.assign(error, { file: file.name });
        });
        added.push(...(sketches as { name: string }[]).map((s) => s.name));
      }
      return added;
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["sketches"] }),
  });
  const failedFile = give.error && "file" in give.error ? String(give.error.file) : undefined;
  return (
    <>
      <label className="button focus-within:outline-3 focus-within:outline-pin">
        Give sketch files
        <input
          type="file"
          multiple
          accept=".json,.zip,application/json,application/zip"
          className="sr-only"
          onChange={(e) => {
            const files = [...(e.target.files ?? [])];
            if (files.length > 0) give.mutate(files);
            e.target.value = "";
          }}
        />
      </label>
      {give.isSuccess && (
        <p role="status" className="self-center">
          {give.data.length === 1
            ? `“${give.data[0]}” lies in the drawer now.`
            : `${give.data.length} sketches lie in the drawer now.`}
        </p>
      )}
      {give.isError && <Failed error={give.error} title={`${failedFile ?? "The file"} did not come in`} />}
    </>
  );
}
