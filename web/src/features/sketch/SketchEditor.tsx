import { useMemo, useState } from "react";
import { type FitDoc, type LiftedFrom, liftedPage, type SketchDoc } from "@/api/client";
import { BlockBadge, BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { kindWord } from "@/shared/drawing/geometry";
import { Workbench } from "@/shared/ui/Workbench";
import { DrawnSketch } from "./DrawnSketch";
import { DRAWN, stacked, without } from "./model";
import { NumberLines } from "./NumberLines";
import { snappedTo } from "./snapping";
import { type Pointed, Understood } from "./Understood";
import { useLines } from "./useLines";

type Props = {
  sketch: SketchDoc;
  onChange: (sketch: SketchDoc, reason: string) => void;
  mayChange: boolean;
  /** What stands at the top of the ledger. */
  top: React.ReactNode;
  /** The lifted page that blocks are laid over. */
  over?: LiftedFrom | undefined;
  /** On a page's own sketch: what the fit holds to of it. */
  fit?: FitDoc | undefined;
  onFit?: ((fit: FitDoc, reason: string) => void) | undefined;
};

/** A sketch in lines and drawn: both edit the same document. */
export function SketchEditor({ sketch, onChange, mayChange, top, over, fit, onFit }: Props) {
  const [selected, setSelected] = useState<string>();
  const [drawing, setDrawing] = useState<string>();
  const [seen, setSeen] = useState(true);
  const [pointed, setPointed] = useState<Pointed>();
  const lines = useLines(sketch, onChange);
  const block = sketch.blocks.find((b) => b.id === selected);
  const commit = async (next: SketchDoc, reason: string, id?: string) => {
    setDrawing(undefined);
    if (!over || !seen || !id || reason.endsWith("nudged")) return onChange(next, reason);
    onChange(await snappedTo(over, sketch, next, id), reason);
    setSelected(id);
  };
  const numbers = useMemo(() => numbersOf(sketch.blocks), [sketch.blocks]);
  return (
    <BlockNumbers numbers={numbers}>
      <Workbench
        widths={[340, 300]}
        card={{ name: "By number", content: <NumberLines lines={lines} mayChange={mayChange} /> }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-2">
            {mayChange && (
              <div className="flex flex-wrap items-center gap-1">
                <span className="text-second">Draw</span>
                {DRAWN.map((d) => (
                  <button
                    key={d.kind}
                    type="button"
                    className="button"
                    aria-pressed={drawing === d.kind}
                    onClick={() => setDrawing((now) => (now === d.kind ? undefined : d.kind))}
                  >
                    {kindWord(d.kind)}
                  </button>
                ))}
                {over && (
                  <label className="ml-auto flex items-center gap-1.5">
                    <input type="checkbox" checked={seen} onChange={(e) => setSeen(e.target.checked)} />
                    the page under it
                  </label>
                )}
              </div>
            )}
            <DrawnSketch
              sketch={lines.preview ?? sketch}
              selected={selected}
              drawing={drawing}
              mayChange={mayChange && !lines.preview}
              onSelect={setSelected}
              onCommit={commit}
              pointed={pointed}
              under={over && seen ? liftedPage(over) : undefined}
            />
            <div className="flex min-h-[34px] flex-wrap items-center gap-2">
              {block && mayChange ? (
                <>
                  <span className="font-medium">
                    <BlockBadge number={String(sketch.blocks.indexOf(block) + 1)} /> {kindWord(block.kind)}
                  </span>
                  <button
                    type="button"
                    className="button"
                    onClick={() => onChange(stacked(sketch, block.id, true), "stacked")}
                  >
                    One up
                  </button>
                  <button
                    type="button"
                    className="button"
                    onClick={() => onChange(stacked(sketch, block.id, false), "stacked")}
                  >
                    One down
                  </button>
                  <button
                    type="button"
                    className="button"
                    onClick={() => onChange(without(sketch, block.id), `${block.id} taken away`)}
                  >
                    Take away
                  </button>
                </>
              ) : (
                <p className="text-second">
                  {lines.preview
                    ? "The lines that are understood; the rest waits for its words."
                    : drawing
                      ? `Drag over the page to draw a ${kindWord(drawing)}.`
                      : "Click a block to move or resize it; arrows nudge, Shift and arrows resize."}
                </p>
              )}
            </div>
          </div>
        }
        ledger={
          <div className="sheet grid gap-3">
            {top}
            <Understood
              reading={lines.reading}
              sketch={sketch}
              onSketch={mayChange ? onChange : undefined}
              fit={fit}
              onFit={mayChange ? onFit : undefined}
              onPoint={setPointed}
            />
          </div>
        }
      />
    </BlockNumbers>
  );
}
