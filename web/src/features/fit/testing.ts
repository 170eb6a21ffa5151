// For tests: a fit of blocks on a 12 × 12 in page, on one such page.

import type { FitDoc } from "@/api/client";

export function fitOf(blocks: FitDoc["sketch"]["blocks"]): FitDoc {
  const page = { w: 12, h: 12 };
  return {
    format: "metrosk-fit/1",
    unit: "in",
    sketch: { format: "metrosk-sketch/1", unit: "in", name: "Kites", canvas: { page, pages: 1 }, blocks },
    target: { page, pages: 1 },
  };
}
