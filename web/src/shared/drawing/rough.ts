export type Point = readonly [x: number, y: number];

/** How long a tooth of an edge is on the screen, and how far it goes in: in pixels, so that it is seen at any size. */
const TEETH: Readonly<Record<string, { tooth: number; depth: number }>> = {
  torn: { tooth: 5, depth: 3 },
  roughened: { tooth: 3, depth: 1.6 },
};

export const isRough = (edge: string | null | undefined): edge is string => Boolean(edge && edge in TEETH);

/** A number from 0 to 1 that looks like chance, the same each time. */
function noise(n: number): number {
  const share = (n * 0.618_033_988_749_895) % 1;
  return n % 2 === 0 ? share : 1 - share * share;
}

/** A clockwise outline whose edge is torn or roughened: it runs in and out, but never beyond what was cut. */
export function ragged(outline: readonly Point[], edge: string): Point[] {
  const teeth = TEETH[edge];
  if (!teeth) return [...outline];
  const points: Point[] = [];
  outline.forEach(([x0, y0], at) => {
    const [x1, y1] = outline[(at + 1) % outline.length] ?? [x0, y0];
    const [dx, dy] = [x1 - x0, y1 - y0];
    const long = Math.hypot(dx, dy);
    if (long === 0) return;
    const depth = Math.min(teeth.depth, long / 12);
    const count = Math.max(1, Math.round(long / teeth.tooth));
    for (let n = 0; n < count; n++) {
      const deep = noise(points.length) * depth;
      points.push([x0 + (dx * n) / count - (dy / long) * deep, y0 + (dy * n) / count + (dx / long) * deep]);
    }
  });
  return points;
}
