// Four corners of a page in a picture, in its pixels: top left, top right, bottom right, bottom left.

export type Point = readonly [number, number];
export type Corners = readonly [Point, Point, Point, Point];

export const CORNER_NAMES = ["top left", "top right", "bottom right", "bottom left"] as const;

/** The whole picture as a page. */
export function whole(size: { w: number; h: number }): Corners {
  return [
    [0, 0],
    [size.w, 0],
    [size.w, size.h],
    [0, size.h],
  ];
}

/** One corner moved, kept in the picture. */
export function movedCorner(corners: Corners, which: number, to: Point, size: { w: number; h: number }): Corners {
  const x = Math.min(size.w, Math.max(0, to[0]));
  const y = Math.min(size.h, Math.max(0, to[1]));
  const next = corners.map((c, n) => (n === which ? ([x, y] as const) : c));
  return next as unknown as Corners;
}

/** One outline round all quads: of two pages drawn apart the outer corners. */
export function around(quads: readonly (readonly Point[])[]): Corners | undefined {
  const first = quads[0];
  const last = quads.at(-1);
  if (first?.length !== 4 || last?.length !== 4) return undefined;
  return [first[0], last[1], last[2], first[3]] as Corners;
}

/** As the server takes them. */
export function cornersText(corners: Corners): string {
  return corners.flatMap((c) => c.map((v) => Math.round(v * 10) / 10)).join(",");
}
