import { createContext, useContext } from "react";
import { type PictureForm, pictureFile } from "@/api/client";
import { scaled } from "./geometry";

/** What shows on a print, by the print's id: its picture, and by how much that is turned on it. */
export type PhotoImages = ReadonlyMap<string, { picture: string; turned: number }>;

const Known = createContext<PhotoImages>(new Map());

/** The pictures on the prints of the pages within. */
export const PhotoImagesOf = Known.Provider;

export const usePhotoImages = () => useContext(Known);

type Printed = { id: string; picture?: string | null; turned?: number | null };

/** The pictures of a plan's prints. */
export function imagesOf(prints: readonly Printed[] | undefined): PhotoImages {
  const shown = (prints ?? []).filter((p) => p.picture);
  return new Map(shown.map((p) => [p.id, { picture: p.picture as string, turned: p.turned ?? 0 }]));
}

/** The smallest form of a picture that has a pixel for each of the screen's. */
export function formFor(pixels: number): PictureForm {
  const needed = pixels * Math.min(window.devicePixelRatio || 1, 2);
  if (needed <= 260) return "thumb";
  if (needed <= 520) return "screen-480";
  return needed <= 1040 ? "screen-960" : "view";
}

type Box = { x: number; y: number; w: number; h: number };

/** A picture over a box in pixels, turned by quarters as it lies on its print. */
export function TurnedImage({ picture, turned, box }: { picture: string; turned: number; box: Box }) {
  const [cx, cy] = [box.x + box.w / 2, box.y + box.h / 2];
  const across = turned % 180 === 0;
  const [w, h] = across ? [box.w, box.h] : [box.h, box.w];
  return (
    <image
      href={pictureFile(picture, formFor(Math.max(w, h)))}
      x={cx - w / 2}
      y={cy - h / 2}
      width={w}
      height={h}
      preserveAspectRatio="none"
      transform={turned ? `rotate(${turned} ${cx} ${cy})` : undefined}
    />
  );
}

type Shown = { photo?: string | null; print?: { w: number; h: number } | null; keep?: Box | null };

/** What shows of a print in its slot; nothing where the print has no picture. */
export function PhotoInSlot({ block, box, scale }: { block: Shown; box: Box; scale: number }) {
  const shown = useContext(Known).get(block.photo ?? "");
  if (!shown || !block.print || !block.keep) return null;
  const full = scaled({ x: 0, y: 0, ...block.print }, scale);
  const print = {
    x: -block.keep.x * full.w,
    y: -block.keep.y * full.h,
    w: full.w,
    h: full.h,
  };
  return (
    <svg x={box.x} y={box.y} width={box.w} height={box.h} overflow="hidden" aria-hidden="true">
      <TurnedImage {...shown} box={print} />
    </svg>
  );
}
