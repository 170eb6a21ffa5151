import { type RefObject, useEffect, useState } from "react";

/** How wide an element is, in pixels, as it is now. */
export function useWidth(element: RefObject<HTMLElement | null>, atFirst: number): number {
  const [width, setWidth] = useState(atFirst);
  useEffect(() => {
    if (!element.current) return;
    const observer = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width));
    observer.observe(element.current);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
