import type { SketchDoc, SketchView } from "@/api/client";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { Sheet } from "@/shared/ui/Sheet";

type Props = {
  mine: SketchDoc;
  theirs: SketchView;
  onSaveMine: () => void;
  onSaveAsAnother: () => void;
  onTakeTheirs: () => void;
};

/** Two people drew on one sketch: she sees both, and chooses. Neither is lost. */
export function StaleSketch({ mine, theirs, onSaveMine, onSaveAsAnother, onTakeTheirs }: Props) {
  return (
    <Sheet
      title="This sketch was changed meanwhile"
      width="wide"
      about={`Somebody else saved version ${theirs.revision} while you were drawing. Saving yours keeps theirs as an earlier version; taking theirs, you can undo back to yours.`}
    >
      <div className="mt-3 grid grid-cols-2 gap-4">
        <Side title="Yours" sketch={mine} />
        <Side title={`Version ${theirs.revision}`} sketch={theirs.document} />
      </div>
      <div className="mt-4 flex flex-wrap gap-2">
        <button type="button" className="button button-first" onClick={onSaveMine}>
          Save mine
        </button>
        <button type="button" className="button" onClick={onSaveAsAnother}>
          Save mine as another sketch
        </button>
        <button type="button" className="button" onClick={onTakeTheirs}>
          Take version {theirs.revision}
        </button>
      </div>
    </Sheet>
  );
}

function Side({ title, sketch }: { title: string; sketch: SketchDoc }) {
  return (
    <figure>
      <figcaption className="mb-1 font-semibold">{title}</figcaption>
      <Thumbnail canvas={sketch.canvas} blocks={sketch.blocks} width={290} height={200} label={title} />
      <p className="text-second">
        {sketch.name}, {sketch.blocks.length} {sketch.blocks.length === 1 ? "block" : "blocks"}
      </p>
    </figure>
  );
}
