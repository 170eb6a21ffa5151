import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { ToggleGroup } from "radix-ui";
import { useDeferredValue, useState } from "react";
import { api, newKey, takeAway } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { Failed } from "@/shared/ui/Failed";
import { Menu } from "@/shared/ui/Menu";
import { Notice } from "@/shared/ui/Notice";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { useRoom } from "@/shared/ui/useRoom";
import { ForMyPrints } from "./ForMyPrints";
import { SketchDetails } from "./SketchDetails";
import { SketchTray } from "./SketchTray";
import { ranks, traysOf } from "./trays";

/** More photos than this are never asked about. */
const MOST_PHOTOS = 60;

/** All the team's sketches, to one scale, like sheets in a flat drawer; what each would need for the prints at hand. */
export function DrawerScreen() {
  const [search, setSearch] = useState("");
  const [archived, setArchived] = useState(false);
  const [photos, setPhotos] = useState("");
  const [upright, setUpright] = useState("");
  const [pages, setPages] = useState("0");
  const [selected, setSelected] = useState<string>();
  const room = useRoom();
  const wanted = useDeferredValue(search.trim());
  const count = Math.min(Number(photos) || 0, MOST_PHOTOS);
  const suit = count > 0 ? { photos: count, upright: Math.min(count, Number(upright) || 0) } : undefined;
  const mayChange = useMayChange();
  const sketches = useQuery({
    queryKey: ["sketches", wanted, archived, suit],
    queryFn: () => api.sketches(wanted, archived, suit),
    placeholderData: (before) => before,
  });
  const all = sketches.data ?? [];
  const shown = all.filter((s) => pages === "0" || String(s.document.canvas.pages) === pages);
  const rankOf = ranks(shown, suit !== undefined);
  const tags = countedTags(all.flatMap((s) => s.tags));
  // What was taken out last; otherwise the best, or the first one.
  const out = shown.find((s) => s.id === selected);
  const first = shown.find((s) => rankOf.get(s.id) === 1) ?? shown[0];
  const details = (s: (typeof shown)[number]) => (
    <SketchDetails key={s.id} sketch={s} mayChange={mayChange} onTag={setSearch} />
  );
  const forPrints = suit && (
    <ForMyPrints {...suit} sketches={shown} rankOf={rankOf} selected={(out ?? first)?.id} onSelect={setSelected} />
  );
  return (
    <main className="grid items-start gap-4 p-[18px] pt-1 min-[1180px]:grid-cols-[minmax(0,1fr)_316px]">
      <h1 className="sr-only">{archived ? "Archived sketches" : "Sketch drawer"}</h1>
      <div className="grid min-w-0 gap-3">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <ToggleGroup.Root
            type="single"
            value={pages}
            aria-label="How many pages"
            className="flex"
            onValueChange={(v) => v && setPages(v)}
          >
            {PAGES.map(({ value, label }, n) => (
              <ToggleGroup.Item
                key={value}
                value={value}
                className={`button ${n > 0 ? "-ml-px rounded-l-none" : ""} ${n < PAGES.length - 1 ? "rounded-r-none" : ""}`}
              >
                {label}
              </ToggleGroup.Item>
            ))}
          </ToggleGroup.Root>
          <fieldset className="flex items-center gap-1.5 text-second">
            <legend className="sr-only">Sketches that suit my prints</legend>
            for
            <Count label="prints at hand" value={photos} onChange={setPhotos} />
            prints,
            <Count label="of them upright" value={upright} onChange={setUpright} />
            upright
          </fieldset>
          <input
            type="search"
            className="field min-w-[12rem] flex-1 px-2 py-1"
            aria-label="Search"
            placeholder="a name, a maker, a tag or a note"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
          <div className="flex flex-wrap gap-2">
            {mayChange && (
              <Link to="/drawer/new" className="button">
                Draw a sketch
              </Link>
            )}
            {mayChange && (
              <Link to="/drawer/picture" className="button">
                From a picture
              </Link>
            )}
            {mayChange && <ImportSketches />}
            <Menu
              label="More for the drawer"
              items={[
                { label: "Download all sketches (zip)", href: takeAway.sketches() },
                {
                  label: archived ? "Show the drawer" : "Show archived sketches",
                  onSelect: () => setArchived((a) => !a),
                },
              ]}
            />
          </div>
        </div>
        <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1 text-[13.5px]">
          {tags.length > 0 && <span className="text-second">Tags</span>}
          {tags.map(([tag, n]) => (
            <button
              key={tag}
              type="button"
              className="link"
              aria-pressed={search === tag}
              onClick={() => setSearch(tag)}
            >
              {tag} <span className="font-normal text-second">{n}</span>
            </button>
          ))}
          <span className="ml-auto text-second">
            ■ a page made from it
            {suit && (
              <b className="pl-4 text-ink">
                {rankOf.size} of {shown.length} suit
              </b>
            )}
            {suit && ", the rest are paler"}
            {archived && <b className="pl-4 text-ink">Archived sketches</b>}
          </span>
        </div>
        {sketches.isError && <Failed error={sketches.error} onRetry={() => sketches.refetch()} />}
        {sketches.isPending && <Notice>Fetching the sketches…</Notice>}
        {sketches.data && shown.length === 0 && (
          <Notice>
            {wanted
              ? `No sketch is about “${wanted}”.`
              : archived
                ? "No sketch is archived."
                : "The drawer is empty. Draw a sketch, read one from a picture, or import a file."}
          </Notice>
        )}
        {traysOf(shown).map((tray) => (
          <SketchTray
            key={tray.name}
            tray={tray}
            asked={suit !== undefined}
            rankOf={rankOf}
            selected={(out ?? (room === "wide" ? first : undefined))?.id}
            onSelect={setSelected}
          />
        ))}
      </div>
      {room === "wide" ? (
        <aside aria-label="Taken out" className="sheet sticky top-3 grid gap-4">
          {forPrints}
          {(out ?? first) && (
            <div className={suit ? "border-ink border-t pt-3" : ""}>
              <h2 className="mb-2">{(out ?? first)?.name}</h2>
              {details((out ?? first) as (typeof shown)[number])}
            </div>
          )}
        </aside>
      ) : (
        <>
          {forPrints && <aside className="sheet">{forPrints}</aside>}
          {out && (
            <Sheet
              title={out.name}
              beside
              onClose={() => setSelected(undefined)}
              heading={<CloseSheet className="ml-auto" />}
            >
              {details(out)}
            </Sheet>
          )}
        </>
      )}
    </main>
  );
}

const PAGES = [
  { value: "1", label: "one page" },
  { value: "2", label: "two" },
  { value: "0", label: "both" },
];

function Count({ label, value, onChange }: { label: string; value: string; onChange: (value: string) => void }) {
  return (
    <input
      inputMode="numeric"
      className="field w-[2.6rem] px-2 py-1 text-right"
      aria-label={label}
      value={value}
      onChange={(e) => onChange(e.target.value.replace(/\D/g, "").slice(0, 2))}
    />
  );
}

/** Tags with how many sketches have each, the most frequent first. */
function countedTags(tags: readonly string[]): [string, number][] {
  const counts = new Map<string, number>();
  for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  return [...counts].sort(([a, n], [b, m]) => m - n || a.localeCompare(b)).slice(0, 8);
}

/** Takes one or many sketch files, or an archive of them. A file that is broken is told with everything that is wrong in
 * it, and none of that file comes in. */
function ImportSketches() {
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
        Import sketches
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
            : `${give.data.length} sketches are in the drawer now.`}
        </p>
      )}
      {give.isError && <Failed error={give.error} title={`${failedFile ?? "The file"} was not imported`} />}
    </>
  );
}
