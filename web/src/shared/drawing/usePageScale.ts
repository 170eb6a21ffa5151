import { useRef } from "react";
import { useWindowHeight } from "@/shared/ui/useRoom";
import { useWidth } from "@/shared/ui/useWidth";

type Canvas = { page: { w: number; h: number }; pages: number };

/** How wide the rulers are, and what is left free at the other sides, in pixels. */
export const RULER = 26;
export const ROOM = 10;
/** No page is drawn lower than this, and none takes more than this share of the window: something lies below it. */
const LOWEST = 250;
const SHARE = 0.46;

/** The scale of a page above a tray, in pixels a unit, and its size at that scale. */
export function usePageScale(canvas: Canvas) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 600);
  const height = useWindowHeight();
  const across = canvas.page.w * canvas.pages;
  const tallest = Math.max(LOWEST, height * SHARE - RULER);
  const scale = Math.max(0.1, Math.min((width - RULER - ROOM) / across, tallest / canvas.page.h));
  return { frame, scale, size: { w: across * scale, h: canvas.page.h * scale } };
}
