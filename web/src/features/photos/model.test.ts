import { describe, expect, it } from "vitest";
import type { PlacedPhotoDoc, PlanDoc } from "@/api/client";
import {
  areaWithin,
  countedLayers,
  isSetOff,
  layersFor,
  liftFor,
  printsOn,
  setOffLayers,
  withAside,
  withLayers,
  withLayersForAll,
  withLift,
  withMain,
  withMore,
  withOff,
  withoutPrint,
  withSwap,
  withTurn,
  withZoom,
} from "./model";
import { pictured } from "./pictured";

const sketch = {
  format: "metrosk-sketch/1",
  unit: "in",
  name: "Pair",
  canvas: { page: { w: 12, h: 12 }, pages: 1 },
  blocks: [
    { id: "p1", kind: "photo", box: { x: 1, y: 2, w: 4, h: 6 } },
    { id: "p2", kind: "photo", box: { x: 6, y: 2, w: 5, h: 4 } },
  ],
};

function plan(photos: object): PlanDoc {
  const target = { page: { w: 12, h: 12 }, pages: 1 };
  return { format: "metrosk-plan/2", unit: "in", sketch: { sketch }, photos, fit: { target, snap: 0.125 } } as never;
}

const two = plan({
  photos: [
    { id: "1", w: 4, h: 6, faces: [{ x: 0.1, y: 0.2, w: 0.3, h: 0.4 }] },
    { id: "2", w: 6, h: 4, focal: true },
    { id: "3", w: 3, h: 4, aside: true },
  ],
});

const placed = (print: string, of: string, more: object = {}): PlacedPhotoDoc =>
  ({
    print,
    of,
    part: 0,
    size: { w: 6, h: 8 },
    window: { x: 0.5, y: 0.5, w: 5, h: 7 },
    slot: { w: 5, h: 7 },
    layers: [],
    ...more,
  }) as never;

describe("prints", () => {
  it("take the places that are left, and lie aside beyond that", () => {
    const more = withMore(
      plan({}),
      [
        { w: 6, h: 4 },
        { w: 6, h: 4 },
        { w: 3, h: 4 },
      ],
      2,
    );
    expect(printsOn(more).map((p) => [p.id, p.aside ?? false])).toEqual([
      ["1", false],
      ["2", false],
      ["3", true],
    ]);
  });

  it("never get a number twice", () => {
    const gone = withoutPrint(two, "2");
    const more = withMore(gone, [{ w: 1, h: 1 }], 9);
    expect(printsOn(more).map((p) => p.id)).toEqual(["1", "3", "4"]);
  });

  it("leave the sketch's own count when the last one is taken off", () => {
    const none = ["1", "2", "3"].reduce((p, id) => withoutPrint(p, id), two);
    expect(none.photos?.photos).toBeUndefined();
  });

  it("change places and stay there", () => {
    const swapped = withSwap(two, "1", "2", [placed("1", "p1"), placed("2", "p2")]) as PlanDoc;
    const places = printsOn(swapped).map((p) => p.place?.block);
    expect(places).toEqual(["p2", "p1", undefined]);
  });

  it("that lie aside take the other's place", () => {
    const swapped = withSwap(two, "1", "3", [placed("1", "p1"), placed("2", "p2")]) as PlanDoc;
    const [one, , three] = printsOn(swapped);
    expect([one?.aside, three?.aside, three?.place?.block]).toEqual([true, undefined, "p1"]);
    expect(withSwap(two, "1", "9", [])).toBeUndefined();
  });

  it("have one main photo, and lose their place when they are laid aside", () => {
    expect(printsOn(withMain(two, "1")).map((p) => p.focal ?? false)).toEqual([true, false, false]);
    expect(printsOn(withAside(two, "2", true))[1]).toMatchObject({ aside: true, focal: true });
  });

  it("are turned with what is marked on them", () => {
    const turned = printsOn(withTurn(two, "1"))[0];
    expect([turned?.w, turned?.h, turned?.turned]).toEqual([6, 4, 90]);
    expect(turned?.faces?.[0]).toEqual({ x: 0.4, y: 0.1, w: 0.4, h: 0.3 });
    const round = [1, 2, 3].reduce((p) => withTurn(p, "1"), withTurn(two, "1"));
    expect(printsOn(round)[0]?.turned).toBeUndefined();
  });
});

describe("windows", () => {
  it("are put by what is off a side, to the tick", () => {
    const off = withOff(two, placed("1", "p1"), "left", 0.25);
    expect((printsOn(off)[0]?.crop?.x ?? 0) * 6).toBeCloseTo(0.25, 9);
    const right = withOff(two, placed("1", "p1"), "right", 0);
    expect((printsOn(right)[0]?.crop?.x ?? 0) * 6).toBeCloseTo(1, 9);
    const beyond = withOff(two, placed("1", "p1"), "bottom", 5);
    expect(printsOn(beyond)[0]?.crop?.y).toBe(0);
  });

  it("seen nearer keep their middle", () => {
    const nearer = printsOn(withZoom(two, placed("1", "p1"), 2))[0]?.crop;
    // The middle was at (3, 4) of 6 x 8; twice as near it shows half as much.
    expect((nearer?.x ?? 0) + 5 / 6 / 4).toBeCloseTo(0.5, 9);
    expect(nearer?.zoom).toBe(2);
  });

  it("areas stay on the print", () => {
    expect(areaWithin({ x: -0.1, y: 0.9, w: 0.3, h: 0.3 })).toEqual({ x: 0, y: 0.7, w: 0.3, h: 0.3 });
    const tiny = areaWithin({ x: 0.5, y: 0.5, w: 0, h: 2 });
    expect(tiny.w).toBeGreaterThan(0);
    expect(tiny.y + tiny.h).toBeLessThanOrEqual(1);
  });
});

describe("layers", () => {
  it("of one photo leave those of the others", () => {
    const all = withLayersForAll(two, [{ border: 0.125 }]);
    const one = withLayers(all, "p1", []);
    expect(layersFor(one, "p1")).toEqual([]);
    expect(layersFor(one, "p2")).toEqual([{ border: 0.125 }]);
    expect(layersFor(withLayers(one, "p1", undefined), "p1")).toEqual([{ border: 0.125 }]);
    expect(layersFor(two, "p1")).toBeUndefined();
  });

  it("are counted and set off", () => {
    const layers = countedLayers([{ border: 0.25 }], 2, "in");
    expect(layers).toEqual([{ border: 0.25 }, { border: 0.125 }]);
    const off = setOffLayers(layers, true, "in");
    expect(isSetOff(off)).toBe(true);
    expect(off[0]).toEqual({ border: 0.25 });
    expect(off[1]?.off).toEqual({ x: 0.0625, y: 0.0625 });
    expect(isSetOff(setOffLayers(off, false, "in"))).toBe(false);
  });

  it("lifts are each photo's own", () => {
    const lifted = withLift(withLift(two, "p1", "thin-foam"), "p2", "card");
    expect([liftFor(lifted, "p1"), liftFor(lifted, "p2"), liftFor(lifted, "p3")]).toEqual([
      "thin-foam",
      "card",
      "flat",
    ]);
  });
});

describe("a picture", () => {
  it("lies on the worktop as a file of its own shape", () => {
    const picture = { id: "x", name: "Low sun.jpeg", size: [4000, 3000], made_at: "", known: false };
    expect(pictured(picture as never, "in")).toMatchObject({
      w: 6,
      h: 4.5,
      name: "Low sun",
      file: true,
      pixels: [4000, 3000],
    });
    expect(pictured({ ...picture, size: [1, 20000] } as never, "mm")).toMatchObject({ h: 150 });
  });
});
