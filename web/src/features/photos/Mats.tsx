import type { LayerDoc, PlacedPhotoDoc, PlanDoc } from "@/api/client";
import { BlockBadge, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { Length, LengthSpans } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { Segments } from "@/shared/ui/Segments";
import {
  countedLayers,
  isSetOff,
  layersEach,
  layersFor,
  layersMeasured,
  setOffLayers,
  unitOfPlan,
  usualBorder,
  withLayers,
  withLayersForAll,
} from "./model";

type Props = {
  plan: PlanDoc;
  placed: PlacedPhotoDoc;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
};

const COUNTS = [
  { value: "0", label: "none" },
  { value: "1", label: "one" },
  { value: "2", label: "two" },
  { value: "3", label: "three" },
] as const;
const LIFTS = [
  { value: "flat", label: "flat" },
  { value: "card", label: "on card" },
  { value: "thin-foam", label: "on thin foam" },
  { value: "thick-foam", label: "on thick foam" },
] as const;
const EDGES = [
  { value: "cut", label: "cut edge" },
  { value: "torn", label: "torn" },
  { value: "roughened", label: "roughened" },
] as const;

/** The layers behind a photo: how many, even or set off, each with its border and the size to cut. */
export function Mats({ plan, placed, change, mayChange }: Props) {
  const unit = unitOfPlan(plan);
  const own = layersFor(plan, placed.of);
  const layers = own ?? layersMeasured(placed);
  const set = (next: readonly LayerDoc[], reason: string) => change(withLayers(plan, placed.of, next), reason);
  const one = (n: number, layer: LayerDoc) =>
    set(
      layers.map((l, k) => (k === n ? layer : l)),
      "a border changed",
    );
  const off = isSetOff(layers);
  const shared = placed.layers[0]?.around ?? 1;
  const each = layersEach(plan, placed.of);
  const numbers = useBlockNumbers();
  const photos = plan.sketch.sketch.blocks.filter((b) => b.kind === "photo").map((b) => b.id);
  const others = photos.filter((id) => id !== placed.of);
  return (
    <section aria-labelledby="mats" className="grid gap-2 border-hairline border-t pt-2.5">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h3 id="mats">Mats</h3>
        <Segments
          label="How many mats"
          value={String(layers.length) as (typeof COUNTS)[number]["value"]}
          options={COUNTS}
          disabled={!mayChange}
          onChoose={(count) => set(countedLayers(layers, Number(count), unit), `${count} mats`)}
        />
        {layers.length > 0 && (
          <Segments
            label="Even or set off"
            value={off ? "off" : "even"}
            options={[
              { value: "even", label: "even" },
              { value: "off", label: "set off" },
            ]}
            disabled={!mayChange}
            onChoose={(how) =>
              set(setOffLayers(layers, how === "off", unit), how === "off" ? "mats set off" : "mats even")
            }
          />
        )}
      </div>
      {layers.length > 0 && (
        <div className="grid grid-cols-[104px_minmax(0,1fr)] items-start gap-3">
          <Layered placed={placed} unit={unit} />
          <ol className="grid gap-2">
            <li className="flex justify-between border-hairline border-b pb-1">
              <span>{shared > 1 ? `${shared} photos on one` : "photo"}</span>
              {shared === 1 && <Sized size={placed.slot} unit={unit} />}
            </li>
            {layers.map((layer, n) => (
              <li
                // biome-ignore lint/suspicious/noArrayIndexKey: a layer is known by how far out it lies
                key={`${n}-of-${layers.length}`}
                className="grid gap-1 border-hairline border-b pb-1.5"
              >
                <div className="flex flex-wrap items-center justify-between gap-1">
                  <LengthField
                    label={`mat ${n + 1}`}
                    value={layer.border ?? layer.left ?? usualBorder(unit)}
                    unit={unit}
                    most={4}
                    width="3.6rem"
                    onCommit={(border) =>
                      one(n, { ...(layer.off ? { off: within(layer.off, border) } : {}), ...edgeOf(layer), border })
                    }
                  />
                  {placed.layers[n] && <Sized size={placed.layers[n].size} unit={unit} />}
                </div>
                {layer.off && (
                  <div className="flex flex-wrap items-center gap-1.5 text-[13px] text-second">
                    <LengthField
                      label="right"
                      value={layer.off.x ?? 0}
                      unit={unit}
                      least={-(layer.border ?? 0)}
                      most={layer.border ?? 0}
                      width="3.4rem"
                      onCommit={(x) => one(n, { ...layer, off: { ...layer.off, x } })}
                    />
                    <LengthField
                      label="down"
                      value={layer.off.y ?? 0}
                      unit={unit}
                      least={-(layer.border ?? 0)}
                      most={layer.border ?? 0}
                      width="3.4rem"
                      onCommit={(y) => one(n, { ...layer, off: { ...layer.off, y } })}
                    />
                  </div>
                )}
                <div className="flex gap-1.5">
                  <select
                    className="field min-w-0 flex-1 py-0.5 text-[13px]"
                    aria-label={`Edge of mat ${n + 1}`}
                    disabled={!mayChange}
                    value={layer.edge ?? "cut"}
                    onChange={(e) => one(n, withEdge(layer, e.target.value, unit))}
                  >
                    {EDGES.map((e) => (
                      <option key={e.value} value={e.value}>
                        {e.label}
                      </option>
                    ))}
                  </select>
                  <select
                    className="field min-w-0 flex-1 py-0.5 text-[13px]"
                    aria-label={`What lies under mat ${n + 1}`}
                    disabled={!mayChange}
                    value={layer.lift ?? "flat"}
                    onChange={(e) => one(n, withLift(layer, e.target.value))}
                  >
                    {LIFTS.map((l) => (
                      <option key={l.value} value={l.value}>
                        {l.label}
                      </option>
                    ))}
                  </select>
                </div>
              </li>
            ))}
          </ol>
        </div>
      )}
      {(shared > 1 || each) && layers.length > 0 && (
        <Segments
          label="Mats of photos that share a place"
          value={each ? "each" : "one"}
          options={[
            { value: "one", label: "one under all" },
            { value: "each", label: "one each" },
          ]}
          disabled={!mayChange}
          onChoose={(how) =>
            change(
              withLayers(plan, placed.of, layers, how === "each"),
              how === "each" ? "a mat for each photo" : "one mat under all",
            )
          }
        />
      )}
      {mayChange && others.length > 0 && (
        <div className="flex flex-wrap items-center gap-1.5 text-[13px]">
          <span className="text-second">take over to</span>
          {others.map((of) => (
            <button
              key={of}
              type="button"
              className="button px-1 py-0"
              aria-label={`Take these mats over to photo ${numbers.get(of) ?? of}`}
              onClick={() => change(withLayers(plan, of, layers), `mats taken over to ${of}`)}
            >
              <BlockBadge number={numbers.get(of) ?? of} />
            </button>
          ))}
        </div>
      )}
      {mayChange && (
        <div className="flex flex-wrap gap-2 text-[13px]">
          <button
            type="button"
            className="button px-2 py-0.5"
            onClick={() => change(withLayersForAll(plan, layers), "mats taken over to all photos")}
          >
            So for all photos
          </button>
          {own && (
            <button
              type="button"
              className="button px-2 py-0.5"
              onClick={() =>
                change(
                  withLayers(
                    {
                      ...plan,
                      photos: { ...plan.photos, mats: (plan.photos?.mats ?? []).filter((m) => m.of?.length) },
                    },
                    placed.of,
                    undefined,
                  ),
                  "mats as drawn",
                )
              }
            >
              As the sketch draws them
            </button>
          )}
        </div>
      )}
    </section>
  );
}

const edgeOf = (layer: LayerDoc) => ({
  ...(layer.edge ? { edge: layer.edge } : {}),
  ...(layer.lift ? { lift: layer.lift } : {}),
});

/** What lies under a layer; flat says nothing. */
function withLift(layer: LayerDoc, lift: string): LayerDoc {
  const { lift: _, ...rest } = layer;
  return lift === "flat" ? rest : { ...rest, lift };
}

/** A torn or roughened edge shows more of its layer: its border is wider, a cut one is as it was. */
function withEdge(layer: LayerDoc, edge: string, unit: "in" | "mm"): LayerDoc {
  const { edge: before, ...rest } = layer;
  const more = unit === "in" ? 1 / 16 : 1.5;
  const rough = (e: string | null | undefined) => e !== undefined && e !== null && e !== "cut";
  const border =
    (layer.border ?? layer.left ?? usualBorder(unit)) + (rough(edge) ? more : 0) - (rough(before) ? more : 0);
  return { ...rest, border, ...(rough(edge) ? { edge } : {}) };
}

/** An offset that the border still holds. */
function within(off: NonNullable<LayerDoc["off"]>, border: number) {
  const held = (at: number | null | undefined) => Math.min(Math.max(at ?? 0, -border), border);
  return { x: held(off.x), y: held(off.y) };
}

function Sized({ size, unit }: { size: { w: number; h: number }; unit: "in" | "mm" }) {
  return (
    <span>
      <Length value={size.w} unit={unit} /> × <Length value={size.h} unit={unit} />
    </span>
  );
}

/** The photo on its layers, seen from above, with what shows of the outermost on each side. */
function Layered({ placed, unit }: { placed: PlacedPhotoDoc; unit: "in" | "mm" }) {
  const outer = placed.layers[placed.layers.length - 1];
  if (!outer) return null;
  const scale = Math.min(56 / outer.size.w, 70 / outer.size.h);
  const [w, h] = [outer.size.w * scale, outer.size.h * scale];
  const [x0, y0] = [(104 - w) / 2, 18];
  const total = [0, 1, 2, 3].map((side) => placed.layers.reduce((sum, l) => sum + (l.borders[side] ?? 0), 0));
  const [left = 0, top = 0, right = 0, bottom = 0] = total;
  let at = { x: x0, y: y0 };
  const boxes = [...placed.layers].reverse().map((layer) => {
    const box = { ...at, w: layer.size.w * scale, h: layer.size.h * scale };
    at = { x: at.x + (layer.borders[0] ?? 0) * scale, y: at.y + (layer.borders[1] ?? 0) * scale };
    return box;
  });
  return (
    <svg width={104} height={h + 36} aria-hidden="true">
      {boxes.map((b, n) => (
        <rect
          key={`${b.x}-${b.w}`}
          x={b.x}
          y={b.y}
          width={b.w}
          height={b.h}
          fill={n % 2 === 0 ? "#ffffff" : "#dfe5e6"}
          stroke="#17263b"
        />
      ))}
      <rect
        x={at.x}
        y={at.y}
        width={w - (left + right) * scale}
        height={h - (top + bottom) * scale}
        fill="url(#texture-photo)"
        stroke="#17263b"
      />
      <g fontSize={11} fontWeight={700} className="fill-ink">
        <text x={52} y={12} textAnchor="middle">
          <LengthSpans value={top} unit={unit} />
        </text>
        <text x={52} y={y0 + h + 14} textAnchor="middle">
          <LengthSpans value={bottom} unit={unit} />
        </text>
        <text x={x0 - 4} y={y0 + h / 2} textAnchor="end" dy="0.35em">
          <LengthSpans value={left} unit={unit} />
        </text>
        <text x={x0 + w + 4} y={y0 + h / 2} dy="0.35em">
          <LengthSpans value={right} unit={unit} />
        </text>
      </g>
    </svg>
  );
}
