import { Link } from "@tanstack/react-router";
import { useMemo, useState } from "react";
import type { LiftedFrom, SketchDoc } from "@/api/client";
import { BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { useKeyBindings } from "@/shared/ui/useKeyBindings";
import { Workbench } from "@/shared/ui/Workbench";
import type { WrittenSize } from "./BlockInHand";
import { Nearly } from "./Nearly";
import { ReadBlocks } from "./ReadBlocks";
import { ReadOver } from "./ReadOver";
import { bySure, unsure } from "./review";

type Props = {
  sketch: SketchDoc;
  /** The page brought upright. */
  over: LiftedFrom;
  written: readonly WrittenSize[];
  taken: React.ReactNode;
  form: React.ReactNode;
  looksLike: React.ReactNode;
  steps: {
    past: readonly unknown[];
    future: readonly unknown[];
    change: (sketch: SketchDoc) => void;
    undo: () => void;
    redo: () => void;
  };
  keep: { go: () => void; isPending: boolean; error: Error | null };
};

/** What was read, to be looked over: the picture as it was taken, the blocks over it, and the list of them, least sure first. */
export function ReadDesk({ sketch, over, written, taken, form, looksLike, steps, keep }: Props) {
  const [at, setAt] = useState(() => bySure(sketch)[0]?.id);
  const [lit, setLit] = useState<string>();
  const left = unsure(sketch);
  const numbers = useMemo(() => numbersOf(sketch.blocks), [sketch.blocks]);
  useKeyBindings({
    "$mod+z": (e) => outsideText(e, steps.undo),
    "$mod+Shift+z": (e) => outsideText(e, steps.redo),
  });
  return (
    <BlockNumbers numbers={numbers}>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 px-[18px] pt-2">
        <h1 className="text-[20px]">A sketch from a picture</h1>
        <p role="status" className="text-second">
          {sketch.blocks.length} blocks{left > 0 ? `, ${left} to look at` : ", all settled"}
        </p>
        <Link to="/drawer" className="link">
          Back to the drawer
        </Link>
        <span className="ml-auto flex gap-2">
          <button type="button" className="button" disabled={steps.past.length < 1} onClick={steps.undo}>
            Undo
          </button>
          <button type="button" className="button" disabled={steps.future.length < 1} onClick={steps.redo}>
            Redo
          </button>
          <button
            type="button"
            className="button button-first"
            disabled={keep.isPending || sketch.blocks.length === 0}
            onClick={keep.go}
          >
            Put into the drawer
          </button>
        </span>
        {keep.error && (
          <p role="alert" className="basis-full text-measure">
            {keep.error.message}
          </p>
        )}
      </div>
      <Workbench
        widths={[240, 350]}
        card={{
          name: "As it was taken",
          content: (
            <div className="sheet grid gap-3">
              <h2 className="text-[16px]">As it was taken</h2>
              {taken}
              {looksLike}
              {form}
            </div>
          ),
        }}
        page={
          <ReadOver
            sketch={sketch}
            over={over}
            at={at}
            lit={lit}
            onPoint={setLit}
            onWalk={setAt}
            onChange={steps.change}
          />
        }
        ledger={
          <div className="sheet grid gap-3">
            <ReadBlocks
              sketch={sketch}
              at={at}
              written={written}
              lit={lit}
              onPoint={setLit}
              onWalk={setAt}
              onChange={steps.change}
            />
            <Nearly sketch={sketch} onChange={steps.change} />
          </div>
        }
      />
    </BlockNumbers>
  );
}

/** Does it, unless the key goes to a field of text, which undoes its own. */
function outsideText(e: KeyboardEvent, act: () => void) {
  if (e.target instanceof HTMLInputElement && e.target.type !== "radio") return;
  e.preventDefault();
  act();
}
