import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useEffect, useRef, useState } from "react";
import { api, fieldError, newKey, type PictureView, type SketchDoc, type SketchView } from "@/api/client";
import { useMe } from "@/features/people/useMe";
import { useUnsaved } from "@/features/plan/useUnsaved";
import { fromTicks, parseLength } from "@/shared/lengths/length";
import { useSteps } from "@/shared/query/steps";
import { useOnce } from "@/shared/query/useOnce";
import type { WrittenSize } from "./BlockInHand";
import { around, type Corners, cornersText } from "./corners";
import { LooksLike, type PageSize } from "./LooksLike";
import { lifted } from "./lifting";
import { Offered } from "./Offered";
import { PictureForm, type Said } from "./PictureForm";
import { ReadDesk } from "./ReadDesk";
import { readPicture } from "./readPicture";
import { TakenPicture } from "./TakenPicture";
import { usePictures } from "./usePicture";

const STAGES: Record<string, string> = {
  page: "Looking for the page…",
  upright: "Bringing it upright…",
  strokes: "Telling writing from strokes…",
  blocks: "Finding the blocks…",
  kinds: "Telling their kinds…",
};

/** What was read and is not in the drawer yet. */
type ReadSketch = { sketch: SketchDoc; picture: PictureView; lift: string };

/** A sketch out of a picture: the picture, what it shows, what was read in it, and into the drawer. A finished page is brought upright
 * for blocks to be laid over it. */
export function PictureScreen() {
  const unit = useMe().data?.defaults.unit === "mm" ? "mm" : "in";
  const navigate = useNavigate();
  const queries = useQueryClient();
  const side = unit === "mm" ? "305" : "12";
  const [picture, setPicture] = useState<PictureView>();
  const [said, setSaid] = useState<Said>({
    finished: false,
    name: "",
    maker: "",
    after: "",
    width: side,
    height: side,
    pages: 1,
  });
  const [corners, setCorners] = useState<Corners>();
  const steps = useSteps<ReadSketch["sketch"] | undefined>(undefined);
  const [over, setOver] = useState<ReadSketch["lift"]>();
  const [looksLike, setLooksLike] = useState<readonly PageSize[]>([]);
  const [written, setWritten] = useState<readonly WrittenSize[]>([]);
  const [stage, setStage] = useState<string>();
  const waiting = useRef<AbortController>(undefined);
  useEffect(() => () => waiting.current?.abort(), []);
  const { finished, name, pages } = said;
  const sketch = finished ? undefined : steps.now;

  const chosen = (next: PictureView) => {
    setPicture(next);
    setSaid((s) => ({ ...s, name: next.name.replace(/\.[^.]+$/, "") }));
    setCorners(undefined);
    setOver(undefined);
    steps.begin(undefined);
    read.reset();
    lift.reset();
  };
  const pictures = usePictures(chosen);
  const take = (file: File | undefined) => file && pictures.add.mutate(file);
  const shown = (as = said) => {
    const { width, height } = as;
    return { width, height, pages, unit, name, ...(corners && { corners: cornersText(corners) }) };
  };

  const read = useMutation({
    mutationFn: (as: Said) => {
      if (!picture) throw new Error("There is no picture yet.");
      waiting.current?.abort();
      waiting.current = new AbortController();
      setStage(undefined);
      return readPicture(picture.id, shown(as), setStage, waiting.current.signal);
    },
    onSuccess: (reading) => {
      steps.begin(reading.sketch);
      setOver(reading.lift);
      setLooksLike(reading.looks_like);
      setWritten(reading.written);
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
      const length = (text: string) => {
        const parsed = parseLength(text, unit);
        return "ticks" in parsed ? fromTicks(parsed.ticks, unit) : 12;
      };
      const page = { w: length(said.width), h: length(said.height) };
      const begun = lifted({ ...said, unit, page, swatches: found.swatches.map((s) => s.colour) });
      return { kept: await api.addSketch(begun, newKey(), { picture: picture.id, lift: found.id }) };
    },
    onSuccess: (done) => (done.kept ? toSketch(done.kept) : setCorners(done.corners)),
  });
  const unsaved = useUnsaved<ReadSketch>(
    "sketch read",
    name || "A sketch from a picture",
    sketch && picture && over ? { sketch: { ...sketch, name }, picture, lift: over } : undefined,
  );
  const { found } = unsaved;
  const keep = useOnce(
    (read: ReadSketch, key) => api.addSketch(read.sketch, key, { picture: read.picture.id, lift: read.lift }),
    (kept) => {
      unsaved.letGo();
      toSketch(kept);
    },
  );
  const stopped = read.error?.name === "AbortError";
  const wrong = finished ? lift.error : read.error;
  const size = picture && { w: picture.size[0] ?? 1, h: picture.size[1] ?? 1 };
  const takeUp = (draft: ReadSketch) => {
    chosen(draft.picture);
    steps.begin(draft.sketch);
    setOver(draft.lift);
    unsaved.settle();
  };
  const form = (
    <form
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (picture) finished ? lift.mutate() : read.mutate(said);
      }}
    >
      <ChoosePicture again={picture !== undefined} onTake={take} />
      {found && (
        <LeftBefore
          name={found.draft.sketch.name ?? ""}
          onTakeUp={() => takeUp(found.draft)}
          onThrow={unsaved.settle}
        />
      )}
      {unsaved.question}
      {!sketch && <p className="text-second">{pictures.limits}</p>}
      {pictures.add.isPending && <p role="status">Putting the picture in…</p>}
      {pictures.add.error && (
        <p role="alert" className="text-measure">
          {pictures.add.error.message}
        </p>
      )}
      <PictureForm said={said} onSay={setSaid} unit={unit} error={wrong} fixed={sketch !== undefined} />
      {read.isPending ? (
        <div className="flex items-center gap-3">
          <button type="button" className="button" onClick={() => waiting.current?.abort()}>
            Stop
          </button>
          <p role="status">{(stage && STAGES[stage]) ?? "Waiting its turn…"}</p>
        </div>
      ) : (
        <button
          type="submit"
          className={`button justify-self-start ${sketch ? "" : "button-first"}`}
          disabled={!picture || lift.isPending}
        >
          {finished ? (corners ? "Lay blocks over it" : "Find the page") : sketch ? "Read it again" : "Read it"}
        </button>
      )}
      {wrong && !stopped && !fieldError(wrong, "width") && !fieldError(wrong, "height") && (
        <p role="alert" className="text-measure">
          {wrong.message}
        </p>
      )}
      {!sketch && (
        <p className="text-second">
          A diagram, a print, a pencil sketch, a photo of one, or a finished page. It stays with the team's pictures;
          what the camera noted of place and time does not.
        </p>
      )}
    </form>
  );
  const taken = picture && size && (
    <TakenPicture picture={picture} size={size} corners={corners} finished={finished} onChange={setCorners} />
  );
  if (sketch && picture && over) {
    return (
      <ReadDesk
        key={over}
        sketch={sketch}
        over={{ lift: over }}
        written={written}
        taken={taken}
        form={form}
        looksLike={
          <LooksLike
            sizes={looksLike}
            unit={unit}
            said={said}
            onRead={(width, height) => {
              const as = { ...said, width, height };
              setSaid(as);
              read.mutate(as);
            }}
          />
        }
        steps={steps}
        keep={{
          error: keep.error,
          isPending: keep.isPending,
          go: () => keep.mutate({ sketch: { ...sketch, name }, picture, lift: over }),
        }}
      />
    );
  }
  return (
    <main className="grid gap-4 p-[18px] pt-2">
      <div className="flex items-baseline gap-4">
        <h1 className="text-[20px]">A sketch from a picture</h1>
        <Link to="/drawer" className="link">
          Back to the drawer
        </Link>
      </div>
      <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,15rem)_minmax(0,1fr)]">
        {form}
        <section
          aria-label="The picture"
          className="min-h-[20rem]"
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault();
            take(e.dataTransfer.files[0]);
          }}
        >
          {taken ?? (
            <div className="grid gap-5">
              <p className="grid min-h-[16rem] place-items-center border-2 border-hairline border-dashed text-second">
                Drop a picture here, or choose one.
              </p>
              <Offered pictures={pictures.known} onChoose={chosen} space={pictures.space} />
            </div>
          )}
        </section>
      </div>
    </main>
  );
}

/** Chooses a picture's file. */
function ChoosePicture({ again, onTake }: { again: boolean; onTake: (file: File | undefined) => void }) {
  return (
    <label className="button justify-self-start focus-within:outline-3 focus-within:outline-pin">
      {again ? "Another picture" : "Choose a picture"}
      <input
        type="file"
        accept="image/png,image/jpeg,image/webp"
        className="sr-only"
        onChange={(e) => onTake(e.target.files?.[0])}
      />
    </label>
  );
}

/** What was read before and left without being put into the drawer. */
function LeftBefore({ name, onTakeUp, onThrow }: { name: string; onTakeUp: () => void; onThrow: () => void }) {
  return (
    <div role="status" className="grid gap-2 rounded-[3px] border border-pin p-2">
      <p>You left “{name}” read, but not in the drawer yet.</p>
      <span className="flex flex-wrap gap-1.5">
        <button type="button" className="button button-first" onClick={onTakeUp}>
          Go on with it
        </button>
        <button type="button" className="button" onClick={onThrow}>
          Throw it away
        </button>
      </span>
    </div>
  );
}
