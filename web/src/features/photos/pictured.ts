import type { PictureView, PrintDoc } from "@/api/client";
import { fromTicks, TICKS, toTicks, type Unit } from "@/shared/lengths/length";

/** The longer side of a file on the worktop: it is printed at any size, and lies there as a usual print would. */
const LONGER: Record<Unit, number> = { in: 6, mm: 150 };

/** A picture as a print: a file of its own shape. */
export function pictured(picture: PictureView, unit: Unit): Omit<PrintDoc, "id"> {
  const [across, down] = picture.size;
  const most = Math.max(across ?? 1, down ?? 1);
  const step = unit === "in" ? TICKS.in / 64 : TICKS.mm / 2;
  const side = (pixels: number) =>
    fromTicks(Math.max(1, Math.round((toTicks(LONGER[unit], unit) * pixels) / most / step)) * step, unit);
  return {
    w: side(across ?? 1),
    h: side(down ?? 1),
    name: picture.name.replace(/\.(jpe?g|png|webp)$/i, ""),
    picture: picture.id,
    pixels: [across ?? 1, down ?? 1],
    file: true,
  };
}
