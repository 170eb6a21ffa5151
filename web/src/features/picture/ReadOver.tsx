import { Slider, ToggleGroup } from "radix-ui";
import { useState } from "react";
import { type LiftedFrom, liftedPage, type SketchDoc } from "@/api/client";
import { DrawnSketch } from "@/features/sketch/DrawnSketch";
import { DRAWN } from "@/features/sketch/model";
import { snappedTo } from "@/features/sketch/snapping";
import { kindWord } from "@/shared/drawing/geometry";
import { accepted } from "./review";

type Props = {
  sketch: SketchDoc;
  over: LiftedFrom;
  at: string | undefined;
  lit: string | undefined;
  onPoint: (id: string | undefined) => void;
  onWalk: (id: string | undefined) => void;
  onChange: (sketch: SketchDoc) => void;
};

/** What stands above and below the page on this screen, in pixels. */
const AROUND = 250;

/** What was read, drawn over the picture brought upright, or beside it. Edges are pulled on the picture itself and go to its lines; a block
 * that was missed is drawn over them. */
export function ReadOver({ sketch, over, at, lit, onPoint, onWalk, onChange }: Props) {
  const [way, setWay] = useState("over");
  const [strength, setStrength] = useState(80);
  const [drawing, setDrawing] = useState<string>();
  const commit = async (next: SketchDoc, reason: string, id?: string) => {
    const isNew = id !== undefined && !sketch.blocks.some((b) => b.id === id);
    setDrawing(undefined);
    if (!id) return onChange(next);
    const laid = reason.endsWith("nudged") ? next : await snappedTo(over, sketch, next, id);
    // What her own hand put there is settled.
    onChange(accepted(laid, id));
    if (isNew || at !== id) onWalk(id);
  };
  const drawn = {
    sketch,
    selected: at,
    drawing,
    mayChange: true,
    onSelect: onWalk,
    onCommit: commit,
    lit,
    onPoint,
    around: drawing ? AROUND + 42 : AROUND,
  };
  return (
    <div data-over={way} className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-2">
      <div className="flex flex-wrap items-center gap-3">
        <ToggleGroup.Root
          type="single"
          value={way}
          onValueChange={(to) => to && setWay(to)}
          aria-label="Where the blocks are drawn"
          className="flex"
        >
          <ToggleGroup.Item value="over" className="button rounded-r-none">
            Over the picture
          </ToggleGroup.Item>
          <ToggleGroup.Item value="beside" className="button -ml-px rounded-l-none">
            Beside it
          </ToggleGroup.Item>
        </ToggleGroup.Root>
        {way === "over" && (
          <span className="flex items-center gap-2 text-second">
            picture
            <Slider.Root
              value={[strength]}
              onValueChange={([to]) => setStrength(to ?? 0)}
              max={100}
              step={5}
              className="relative flex h-6 w-[120px] touch-none items-center"
            >
              <Slider.Track className="relative h-3 grow rounded-[2px] border border-ink/40 bg-tape" />
              <Slider.Thumb
                aria-label="How strongly blocks are drawn over the picture"
                className="block h-6 w-3 rounded-[2px] bg-ink outline-offset-2"
              />
            </Slider.Root>
            blocks
          </span>
        )}
        <button
          type="button"
          className="button ml-auto"
          aria-pressed={drawing !== undefined}
          onClick={() => setDrawing((d) => (d ? undefined : "photo"))}
        >
          Draw a missed block
        </button>
      </div>
      {drawing && (
        <fieldset className="flex flex-wrap items-center gap-1" aria-label="What was missed">
          {DRAWN.map((d) => (
            <button
              key={d.kind}
              type="button"
              className="button"
              aria-pressed={drawing === d.kind}
              onClick={() => setDrawing(d.kind)}
            >
              {kindWord(d.kind)}
            </button>
          ))}
          <span className="text-second">Now drag over its lines.</span>
        </fieldset>
      )}
      {way === "over" ? (
        <DrawnSketch {...drawn} under={liftedPage(over)} strength={strength / 100} />
      ) : (
        <div className="grid gap-2 lg:grid-cols-2">
          <DrawnSketch
            {...drawn}
            selected={undefined}
            mayChange={false}
            lit={lit ?? at}
            under={liftedPage(over)}
            strength={0}
          />
          <DrawnSketch {...drawn} />
        </div>
      )}
    </div>
  );
}
