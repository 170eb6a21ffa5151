import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, type FitDoc, type LayoutDoc, type MadeFromDoc, newKey, type PlanDoc, pictureFile } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { tagPlaces } from "@/features/fit/tagPlaces";
import type { Numbered } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Rulers } from "@/shared/drawing/Rulers";
import { ROOM, RULER, usePageScale } from "@/shared/drawing/usePageScale";
import { Failed } from "@/shared/ui/Failed";
import { FileButton } from "@/shared/ui/FileButton";
import { Differences } from "./Differences";
import { type Frame, FrameOn } from "./FrameOn";

type Props = {
  plan: PlanDoc;
  fit: FitDoc;
  layout: LayoutDoc;
  blocks: readonly Numbered[];
  name: string;
  mayChange: boolean;
  onPicture: (id: string) => void;
  onCloseup: (id: string) => void;
  onTakeOut: (id: string) => void;
  page: string;
  revision: number;
  saved: boolean;
  onWrite: (text: string) => void;
};

/** A picture to be made out of that of the page, and what it becomes. */
type Making = { how: MadeFromDoc; becomes: "page" | "close-up" };

/** The picture of the finished page over its plan, as much of either as she likes, and close-ups. */
export function FinishedPage(props: Props) {
  const { plan, fit, layout, blocks, name, mayChange, onPicture, onCloseup, onTakeOut } = props;
  const { canvas } = layout;
  const { frame, scale, size } = usePageScale(canvas);
  const [share, setShare] = useState(70);
  const slider = useId();
  const picture = plan.log?.picture;
  const closeups = plan.log?.closeups ?? [];
  const [framing, setFraming] = useState<"close-up" | "face">();
  const make = useMutation({
    mutationFn: ({ how }: Making) => api.pictureFrom(picture ?? "", how, newKey()),
    onSuccess: (made, { becomes }) => (becomes === "page" ? onPicture(made.id) : onCloseup(made.id)),
  });
  const framed = (frame: Frame) => {
    const place: [number, number, number, number] = [frame.x, frame.y, frame.w, frame.h];
    setFraming(undefined);
    make.mutate(
      framing === "face"
        ? { how: { blur: [place] }, becomes: "page" }
        : { how: { frame: place, blur: [] }, becomes: "close-up" },
    );
  };
  const numberOf = (block: string) => blocks.find((b) => b.block.id === block)?.number ?? block;
  return (
    <section aria-labelledby="finished" className="min-w-0">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 id="finished" className="text-[17px]">
          {picture ? "The finished page over the plan" : "The page as planned"}
        </h2>
        <span className="text-[13px] text-second">
          {picture ? "laid over the whole page, as the picture is" : "no picture of the finished page yet"}
        </span>
      </div>
      <div ref={frame}>
        <svg
          width={RULER + size.w + ROOM}
          height={RULER + size.h + ROOM}
          role="img"
          aria-label={picture ? "The finished page over the plan" : "The page as planned"}
          className="mx-auto block"
        >
          <Rulers canvas={canvas} unit={unitOf(fit)} scale={scale} at={RULER} />
          <g transform={`translate(${RULER} ${RULER})`}>
            <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
            {picture && (
              <image
                href={pictureFile(picture, "view")}
                width={size.w}
                height={size.h}
                preserveAspectRatio="none"
                opacity={share / 100}
              />
            )}
            <g aria-hidden>
              {tagPlaces(blocks, scale, canvas).map(({ number, block, x, y }) => (
                <NumberTag key={block.id} x={x} y={y} number={number} lit={false} />
              ))}
            </g>
            {picture && framing && (
              <FrameOn
                width={size.w}
                height={size.h}
                what={framing === "face" ? "a face" : "a close-up"}
                onFrame={framed}
                onLeave={() => setFraming(undefined)}
              />
            )}
          </g>
        </svg>
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-3">
        {picture && (
          <span className="flex items-center gap-2">
            <label htmlFor={slider}>plan</label>
            <input
              id={slider}
              type="range"
              min={0}
              max={100}
              value={share}
              aria-valuetext={`${share} % picture`}
              className="w-56 accent-ink"
              onChange={(e) => setShare(Number(e.target.value))}
            />
            <span>picture</span>
          </span>
        )}
        {mayChange && (
          <AddPicture
            label={picture ? "Another picture" : "Add a picture of the page"}
            name={name}
            onAdded={onPicture}
          />
        )}
      </div>
      {picture && mayChange && (
        <div className="mt-1 flex flex-wrap items-center gap-2 text-[14px]">
          <button
            type="button"
            className="button px-2 py-0.5"
            disabled={make.isPending}
            onClick={() =>
              make.mutate({
                how: { upright: [canvas.page.w * canvas.pages, canvas.page.h, canvas.pages], blur: [] },
                becomes: "page",
              })
            }
          >
            Bring it upright
          </button>
          <button
            type="button"
            className="button px-2 py-0.5"
            aria-pressed={framing === "close-up"}
            disabled={make.isPending}
            onClick={() => setFraming(framing === "close-up" ? undefined : "close-up")}
          >
            Frame a close-up
          </button>
          <button
            type="button"
            className="button px-2 py-0.5"
            aria-pressed={framing === "face"}
            disabled={make.isPending}
            onClick={() => setFraming(framing === "face" ? undefined : "face")}
          >
            Blur a face
          </button>
          <span role="status" className="text-second">
            {make.isPending && "Making the picture…"}
            {framing && !make.isPending && "Drag a frame over the picture, or use the arrow keys."}
          </span>
          {make.isError && <Failed error={make.error} />}
        </div>
      )}
      {picture && (
        <div className="mt-2">
          <Differences
            key={picture}
            page={props.page}
            revision={props.revision}
            picture={picture}
            saved={props.saved}
            numberOf={numberOf}
            onWrite={mayChange ? props.onWrite : undefined}
          />
        </div>
      )}
      <div className="mt-2 flex flex-wrap items-end gap-3">
        {closeups.map((id, n) => (
          <figure key={id} className="grid gap-0.5">
            <img src={pictureFile(id, "thumb")} alt={`Close-up ${n + 1}`} className="h-20 border border-hairline" />
            {mayChange && (
              <button
                type="button"
                className="text-[13px] text-second underline"
                aria-label={`Take close-up ${n + 1} out`}
                onClick={() => onTakeOut(id)}
              >
                Take it out
              </button>
            )}
          </figure>
        ))}
        {mayChange && <AddPicture label="Add a close-up" name={`${name}, close-up`} onAdded={onCloseup} />}
      </div>
    </section>
  );
}

/** Brings a picture in and says which it is. */
function AddPicture({ label, name, onAdded }: { label: string; name: string; onAdded: (id: string) => void }) {
  const queries = useQueryClient();
  const add = useMutation({
    mutationFn: (file: File) => api.addPicture(file, name, newKey()),
    onSuccess: (added) => {
      onAdded(added.id);
      queries.invalidateQueries({ queryKey: ["pictures"] });
    },
  });
  return (
    <span>
      <FileButton accept="image/jpeg,image/png,image/webp" disabled={add.isPending} onChoose={add.mutate}>
        {add.isPending ? "Bringing it in…" : label}
      </FileButton>
      {add.isError && <Failed error={add.error} />}
    </span>
  );
}
