import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useEffect, useRef, useState } from "react";
import { api, fieldError, newKey, type SketchDoc, type SketchView } from "@/api/client";
import { useMe } from "@/features/people/useMe";
import { Field } from "@/shared/ui/Field";
import { around, type Corners, cornersText, whole } from "./corners";
import { PictureCorners } from "./PictureCorners";
import { ReadBlocks } from "./ReadBlocks";
import { ReadDrawing } from "./ReadDrawing";
import { unsure } from "./review";

type Picture = { file: File; url: string; size: { w: number; h: number } };

/** A sketch out of a picture: the picture, what it shows, what was read in it, and into the drawer. */
export function PictureScreen() {
  const unit = useMe().data?.defaults.unit === "mm" ? "mm" : "in";
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [picture, setPicture] = useState<Picture>();
  const [broken, setBroken] = useState("");
  const [name, setName] = useState("");
  const [width, setWidth] = useState(unit === "mm" ? "305" : "12");
  const [height, setHeight] = useState(unit === "mm" ? "305" : "12");
  const [pages, setPages] = useState(1);
  const [corners, setCorners] = useState<Corners>();
  const [sketch, setSketch] = useState<SketchDoc>();
  const [at, setAt] = useState<string>();
  const waiting = useRef<AbortController>(undefined);
  useEffect(() => () => waiting.current?.abort(), []);
  useEffect(() => () => void (picture && URL.revokeObjectURL(picture.url)), [picture]);

  const take = (file: File | undefined) => {
    if (!file) return;
    const url = URL.createObjectURL(file);
    const image = new Image();
    image.onload = () => {
      setBroken("");
      setPicture({ file, url, size: { w: image.naturalWidth, h: image.naturalHeight } });
      setName(file.name.replace(/\.[^.]+$/, ""));
      setCorners(undefined);
      setSketch(undefined);
      read.reset();
    };
    image.onerror = () => {
      URL.revokeObjectURL(url);
      setBroken(`“${file.name}” is no picture that can be shown. Allowed are PNG, JPEG and WebP.`);
    };
    image.src = url;
  };

  const read = useMutation({
    mutationFn: () => {
      if (!picture) throw new Error("There is no picture yet.");
      waiting.current?.abort();
      waiting.current = new AbortController();
      const shown = { width, height, pages, unit, name, ...(corners && { corners: cornersText(corners) }) };
      return api.readPicture(picture.file, shown, waiting.current.signal);
    },
    onSuccess: (reading) => {
      setSketch(reading.sketch);
      setAt(undefined);
      setCorners(around(reading.corners as unknown as Corners[]));
    },
  });
  const keep = useMutation({
    mutationFn: () => {
      if (!sketch) throw new Error("There is no sketch yet.");
      return api.addSketch(sketch, newKey());
    },
    onSuccess: (kept) => {
      queries.invalidateQueries({ queryKey: ["sketches"] });
      navigate({ to: "/sketches/$sketchId", params: { sketchId: (kept as SketchView).id } });
    },
  });
  const stopped = read.error?.name === "AbortError";
  const fields = { width: fieldError(read.error, "width"), height: fieldError(read.error, "height") };
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
            if (picture) read.mutate();
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
          {broken && (
            <p role="alert" className="text-measure">
              {broken}
            </p>
          )}
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
              <p role="status">Reading the picture…</p>
            </div>
          ) : (
            <button type="submit" className="button button-first justify-self-start" disabled={!picture}>
              {sketch ? "Read it again" : "Read it"}
            </button>
          )}
          {read.error && !stopped && !fields.width && !fields.height && (
            <p role="alert" className="text-measure">
              {read.error.message}
            </p>
          )}
          <p className="text-second">
            A diagram, a print, a pencil sketch or a photo of one. It is read and forgotten: only the sketch is kept.
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
          {picture ? (
            <>
              <PictureCorners
                url={picture.url}
                size={picture.size}
                corners={corners ?? whole(picture.size)}
                onChange={setCorners}
              />
              <p className="mt-1 text-second">
                {corners
                  ? "The page is read between these corners. Drag one, or move it with the arrow keys, and read again."
                  : "Metrosk looks for the page itself. Drag the corners only if it misses."}
              </p>
            </>
          ) : (
            <p className="grid min-h-[20rem] place-items-center border-2 border-hairline border-dashed text-second">
              Drop a picture here, or choose one.
            </p>
          )}
        </section>
        {sketch && (
          <div className="grid gap-3">
            <ReadDrawing sketch={sketch} at={at} />
            <p role="status" className="font-semibold">
              {sketch.blocks.length} blocks{left > 0 ? `, ${left} to look at` : ", all settled"}
            </p>
            <ReadBlocks sketch={sketch} at={at} onWalk={setAt} onChange={setSketch} />
            <button
              type="button"
              className="button button-first justify-self-start"
              disabled={keep.isPending || sketch.blocks.length === 0}
              onClick={() => keep.mutate()}
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
