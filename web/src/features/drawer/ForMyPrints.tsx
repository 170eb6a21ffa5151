import type { SketchView } from "@/api/client";
import { BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { Sentence } from "@/shared/ui/Length";

type Props = {
  photos: number;
  upright: number;
  sketches: readonly SketchView[];
  rankOf: ReadonlyMap<string, number>;
  selected: string | undefined;
  onSelect: (id: string) => void;
};

/** So many are told at once. */
const MOST = 6;

/** What each sketch would need for the prints at hand, the best first; what can't be used comes last, with why. */
export function ForMyPrints({ photos, upright, sketches, rankOf, selected, onSelect }: Props) {
  const best = [...rankOf].slice(0, MOST).flatMap(([id]) => sketches.filter((s) => s.id === id));
  const without = sketches.filter((s) => s.changes === null || s.changes === undefined);
  return (
    <section aria-labelledby="for-prints">
      <h2 id="for-prints">
        For your {photos} {photos === 1 ? "print" : "prints"}
      </h2>
      <p className="text-second">
        {upright} upright, {photos - upright} level
      </p>
      <ol className="-mx-3.5 mt-1">
        {best.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              aria-pressed={s.id === selected}
              onClick={() => onSelect(s.id)}
              className="flex w-full cursor-pointer gap-2.5 border-hairline border-t px-3.5 py-1.5 text-left leading-snug aria-pressed:bg-lit"
            >
              <span className="h-fit border border-[#17263b] bg-tape px-1.5 font-bold text-[12px] text-tape-ink">
                {rankOf.get(s.id)}
              </span>
              <span>
                <span className="block font-heading font-semibold">{s.name}</span>
                <BlockNumbers numbers={numbersOf(s.document.blocks)}>
                  {s.needs.length === 0 ? "As drawn." : <Sentence text={s.needs.join(" ")} />}
                </BlockNumbers>
              </span>
            </button>
          </li>
        ))}
      </ol>
      {rankOf.size > MOST && <p className="text-second">{rankOf.size - MOST} more suit.</p>}
      {rankOf.size === 0 && <p className="mt-1">None of them suits with two changes or fewer.</p>}
      {without.length > 0 && (
        <p className="mt-1 text-second">{without.map((s) => s.name).join(", ")}: no photo in the sketch.</p>
      )}
    </section>
  );
}
