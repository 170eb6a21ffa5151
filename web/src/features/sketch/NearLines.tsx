import { useMutation } from "@tanstack/react-query";
import { api, type NearView, type SketchDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { Length, Sentence } from "@/shared/ui/Length";

type Props = {
  near: readonly NearView[];
  sketch: SketchDoc;
  unit: Unit;
  onChange: (sketch: SketchDoc, reason: string) => void;
};

/** Edges that lie close together and may be meant as one line: she says so, or leaves them. */
export function NearLines({ near, sketch, unit, onChange }: Props) {
  const agree = useMutation({
    mutationFn: (one: NearView) => api.agree(sketch, one),
    onSuccess: (next) => onChange(next as SketchDoc, "edges made one line"),
  });
  if (near.length === 0) return null;
  return (
    <section aria-labelledby="nearly" className="grid gap-1">
      <h2 id="nearly">Nearly one line</h2>
      <ul className="grid max-h-[22vh] gap-1 overflow-y-auto">
        {near.map((n) => (
          <li key={`${n.along}-${n.blocks.join()}`} className="flex items-start gap-2">
            <span className="grow">
              {n.blocks.length} {n.along} edges within <Length value={n.spread} unit={unit} withUnit />:{" "}
              <Sentence text={n.blocks.join(", ")} />
            </span>
            <button
              type="button"
              className="button shrink-0 !px-1.5 !py-0 text-[13px]"
              disabled={agree.isPending}
              onClick={() => agree.mutate(n)}
            >
              Make one
            </button>
          </li>
        ))}
      </ul>
      {agree.error && (
        <p role="alert" className="text-measure">
          {agree.error.message}
        </p>
      )}
    </section>
  );
}
