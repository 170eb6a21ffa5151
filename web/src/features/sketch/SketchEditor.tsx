import { useState } from "react";
import type { SketchDoc } from "@/api/client";
import { kindWord } from "@/shared/drawing/geometry";
import { DrawnSketch } from "./DrawnSketch";
import { DRAWN, stacked, without } from "./model";
import { NumberLines } from "./NumberLines";
import { Understood } from "./Understood";
import { useLines } from "./useLines";

type Props = {
  sketch: SketchDoc;
  onChange: (sketch: SketchDoc, reason: string) => void;
  mayChange: boolean;
  /** What stands at the top of the ledger. */
  top: React.ReactNode;
};

/** A sketch in lines and drawn: both edit the same document. */
export function SketchEditor({ sketch, onChange, mayChange, top }: Props) {
  const [selected, setSelected] = useState<string>();
  const [drawing, setDrawing] = useState<string>();
  const lines = useLines(sketch, onChange);
  const block = sketch.blocks.find((b) => b.id === selected);
  return (
    <main className="grid min-h-0 flex-1 gap-3.5 p-3.5 lg:grid-cols-[340px_minmax(0,1fr)_300px] lg:*:max-h-full lg:*:min-h-0 lg:*:self-start lg:*:overflow-y-auto">
      <NumberLines lines={lines} mayChange={mayChange} />
      <div className="grid min-w-0 content-start gap-2">
        {mayChange && (
          <div className="flex flex-wrap items-center gap-1.5">
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
          </div>
        )}
        <DrawnSketch
          sketch={lines.preview ?? sketch}
          selected={selected}
          drawing={drawing}
          mayChange={mayChange && !lines.preview}
          onSelect={setSelected}
          onCommit={(next, reason) => {
            setDrawing(undefined);
            onChange(next, reason);
          }}
        />
        <div className="flex min-h-[34px] flex-wrap items-center gap-2">
          {block && mayChange ? (
            <>
              <span className="font-medium">
                {kindWord(block.kind)} {block.id}
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
      <aside aria-label="Ledger" className="sheet grid gap-3">
        {top}
        <Understood reading={lines.reading} sketch={sketch} />
      </aside>
    </main>
  );
}
