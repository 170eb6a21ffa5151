import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useEffect, useRef, useState } from "react";
import { api, fieldError, newKey, type PictureView, pictureFile, type SketchDoc, type SketchView } from "@/api/client";
import { useMe } from "@/features/people/useMe";
import { useUnsaved } from "@/features/plan/useUnsaved";
import { BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { fromTicks, parseLength } from "@/shared/lengths/length";
import { useOnce } from "@/shared/query/useOnce";
import { Field } from "@/shared/ui/Field";
import { around, type Corners, cornersText, whole } from "./corners";
import { lifted } from "./lifting";
import { Nearly } from "./Nearly";
import { Offered } from "./Offered";
import { PictureCorners } from "./PictureCorners";
import { ReadBlocks } from "./ReadBlocks";
import { ReadDrawing } from "./ReadDrawing";
import { readPicture } from "./readPicture";
import { unsure } from "./review";
import { usePictures } from "./usePicture";

const STAGES: Record<string, string> = {
  page: "Looking for the page…",
  upright: "Bringing it upright…",
  strokes: "Telling writing from strokes…",
  blocks: "Finding the blocks…",
  kinds: "Telling their kinds…",
};

/** What was read and is not in the drawer yet. */
type ReadSketch = { sketch: SketchDoc; picture: PictureView };

/** A sketch out of a picture: the picture, what it shows, what was read in it, and into the drawer. A finished page is brought upright
 * for blocks to be laid over it. */
export function PictureScreen() {
  const unit = useMe().data?.defaults.unit === "mm" ? "mm" : "in";
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [picture, setPicture] = useState<PictureView>();
  const [finished, setFinished] = useState(false);
  const [name, setName] = useState("");
  const [maker, setMaker] = useState("");
  const [after, setAfter] = useState("");
  const [width, setWidth] = useState(unit === "mm" ? "305" : "12");
  const [height, setHeight] = useState(unit === "mm" ? "305" : "12");
  const [pages, setPages] = useState(1);
  const [corners, setCorners] = useState<Corners>();
  const [sketch, setSketch] = useState<SketchDoc>();
  const [at, setAt] = useState<string>();
  const [stage, setStage] = useState<string>();
  const waiting = useRef<AbortController>(undefined);
  useEffect(() => () => waiting.current?.abort(), []);

  const chosen = (next: PictureView) => {
    setPicture(next);
    setName(next.name.replace(/\.[^.]+$/, ""));
    setCorners(undefined);
    setSketch(undefined);
    read.reset();
    lift.reset();
  };
  const pictures = usePictures(chosen);
  const take = (file: File | undefined) => file && pictures.add.mutate(file);
  const shown = () => ({ width, height, pages, unit, name, ...(corners && { corners: cornersText(corners) }) });

  const read = useMutation({
    mutationFn: () => {
      if (!picture) throw new Error("There is no picture yet.");
      waiting.current?.abort();
      waiting.current = new AbortController();
      setStage(undefined);
      return readPicture(picture.id, shown(), setStage, waiting.current.signal);
    },
    onSuccess: (reading) => {
      setSketch(reading.sketch);
      setAt(undefined);
      setCorners(around(reading.corners as unknown as Corners[]));
    },
  });
  const toSketch = (kept: unknown) => {
    queries.invalidateQueries({ queryKey: ["sketches"] });
    navigate({ to: "/sketches/$sketchId", params: { sketchId: (kept as SketchView).id } });
  };
  const lift = useMutation({
    mutationFn: async () => {
      if (!picture) throw new Error("There is no picture yet.");
      const found = await api.liftPage(picture.id, shown());
      // She sees where the page was found, and moves its corners, before anything is laid over it.
      if (!corners) return { corners: found.corners as unknown as Corners };
      // The server has taken both sides for lengths by now.
      const side = (text: string) => {
        const parsed = parseLength(text, unit);
        return "ticks" in parsed ? fromTicks(parsed.ticks, unit) : 12;
      };
      const page = { w: side(width), h: side(height) };
      const begun = lifted({ name, unit, page, pages, maker, after, swatches: found.swatches.map((s) => s.colour) });
      return { kept: await api.addSketch(begun, newKey(), { picture: picture.id, lift: found.id }) };
    },
    onSuccess: (done) => (done.kept ? toSketch(done.kept) : setCorners(done.corners)),
  });
  const unsaved = useUnsaved<ReadSketch>(
    "sketch read",
    name || "A sketch from a picture",
    sketch && picture && !finished ? { sketch, picture } : undefined,
  );
  const { found } = unsaved;
  const keep = useOnce(
    (read: ReadSketch, key) => api.addSketch(read.sketch, key, { picture: read.picture.id }),
    (kept) => {
      unsaved.letGo();
      toSketch(kept);
    },
  );
  const stopped = read.error?.name === "AbortError";
  const wrong = finished ? lift.error : read.error;
  const fields = { width: fieldError(wrong, "width"), height: fieldError(wrong, "height") };
  const size = picture && { w: picture.size[0] ?? 1, h: picture.size[1] ?? 1 };
  const left = sketch ? unsure(sketch) : 0;
  return (
    <main className="grid gap-4 p-[18px] pt-2">
      <div className="flex items-baseline gap-4">
        <h1 className="text-[20px]">A sketch from a picture</h1>
        <Link to="/drawer" className="link">
          Back to the drawer
        </Link>
      </div>
      <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,15rem)_minmax(0,1fr)_minmax(0,22rem)]">
        <form
          className="grid gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (picture) (finished ? lift : read).mutate();
          }}
        >
          <label className="button justify-self-start focus-within:outline-3 focus-within:outline-pin">
            {picture ? "Another picture" : "Choose a picture"}
            <input
              type="file"
              accept="image/png,image/jpeg,image/webp"
              className="sr-only"
              onChange={(e) => take(e.target.files?.[0])}
            />
          </label>
          {found && (
            <div role="status" className="grid gap-2 rounded-[3px] border border-pin p-2">
              <p>You left “{found.draft.sketch.name}” read, but not in the drawer yet.</p>
              <span className="flex flex-wrap gap-1.5">
                <button
                  type="button"
                  className="button button-first"
                  onClick={() => {
                    chosen(found.draft.picture);
                    setSketch(found.draft.sketch);
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
          {unsaved.question}
          <p className="text-second">{pictures.limits}</p>
          {pictures.add.isPending && <p role="status">Putting the picture in…</p>}
          {pictures.add.error && (
            <p role="alert" className="text-measure">
              {pictures.add.error.message}
            </p>
          )}
          <fieldset className="grid gap-1">
            <legend className="font-medium">It is</legend>
            {[false, true].map((f) => (
              <label key={String(f)} className="flex items-center gap-1.5">
                <input type="radio" name="what" checked={finished === f} onChange={() => setFinished(f)} />
                {f ? "a finished page to lift" : "a page sketch to read"}
              </label>
            ))}
          </fieldset>
          <Field label="Name" value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
          <div className="grid grid-cols-2 gap-2 [&>div]:min-w-0 [&_input]:min-w-0">
            <Field
              label={`Page width (${unit})`}
              value={width}
              error={fields.width}
              onChange={(e) => setWidth(e.target.value)}
            />
            <Field
              label={`Page height (${unit})`}
              value={height}
              error={fields.height}
              onChange={(e) => setHeight(e.target.value)}
            />
          </div>
          {finished && (
            <>
              <Field
                label="Made by"
                value={maker}
                maxLength={120}
                help="Named wherever a page from it is shown."
                onChange={(e) => setMaker(e.target.value)}
              />
              <Field
                label="After, oldest first"
                value={after}
                maxLength={400}
                help="Earlier makers of a hop, with commas."
                onChange={(e) => setAfter(e.target.value)}
              />
            </>
          )}
          <fieldset className="flex gap-4">
            <legend className="font-medium">The picture shows</legend>
            {[1, 2].map((n) => (
              <label key={n} className="flex items-center gap-1.5">
                <input type="radio" name="pages" checked={pages === n} onChange={() => setPages(n)} />
                {n === 1 ? "one page" : "two pages"}
              </label>
            ))}
          </fieldset>
          {read.isPending ? (
            <div className="flex items-center gap-3">
              <button type="button" className="button" onClick={() => waiting.current?.abort()}>
                Stop
              </button>
              <p role="status">{(stage && STAGES[stage]) ?? "Waiting for a free desk…"}</p>
            </div>
          ) : (
            <button
              type="submit"
              className="button button-first justify-self-start"
              disabled={!picture || lift.isPending}
            >
              {finished ? (corners ? "Lay blocks over it" : "Find the page") : sketch ? "Read it again" : "Read it"}
            </button>
          )}
          {wrong && !stopped && !fields.width && !fields.height && (
            <p role="alert" className="text-measure">
              {wrong.message}
            </p>
          )}
          <p className="text-second">
            A diagram, a print, a pencil sketch, a photo of one, or a finished page. It stays with the team's pictures;
            what the camera noted of place and time does not.
          </p>
        </form>
        <section
          aria-label="The picture"
          className="min-h-[20rem]"
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault();
            take(e.dataTransfer.files[0]);
          }}
        >
          {picture && size ? (
            <>
              <PictureCorners
                url={pictureFile(picture.id, "view")}
                size={size}
                corners={corners ?? whole(size)}
                onChange={setCorners}
              />
              <p className="mt-1 text-second">
                {!corners
                  ? "Metrosk looks for the page itself. Drag the corners only if it misses."
                  : finished
                    ? "The page is taken between these corners. Drag one, or move it with the arrow keys."
                    : "The page is read between these corners. Drag one, or move it with the arrow keys, and read again."}
              </p>
            </>
          ) : (
            <div className="grid gap-5">
              <p className="grid min-h-[16rem] place-items-center border-2 border-hairline border-dashed text-second">
                Drop a picture here, or choose one.
              </p>
              <Offered pictures={pictures.known} onChoose={chosen} space={pictures.space} />
            </div>
          )}
        </section>
        {sketch && !finished && (
          <div className="grid gap-3">
            <ReadDrawing sketch={sketch} at={at} />
            <p role="status" className="font-semibold">
              {sketch.blocks.length} blocks{left > 0 ? `, ${left} to look at` : ", all settled"}
            </p>
            <BlockNumbers numbers={numbersOf(sketch.blocks)}>
              <ReadBlocks sketch={sketch} at={at} onWalk={setAt} onChange={setSketch} />
              <Nearly sketch={sketch} onChange={setSketch} />
            </BlockNumbers>
            <button
              type="button"
              className="button button-first justify-self-start"
              disabled={keep.isPending || sketch.blocks.length === 0}
              onClick={() => picture && keep.mutate({ sketch, picture })}
            >
              Put into the drawer
            </button>
            {keep.error && (
              <p role="alert" className="text-measure">
                {keep.error.message}
              </p>
            )}
          </div>
        )}
      </div>
    </main>
  );
}
