import type { StashItemView } from "@/api/client";
import { PaperSwatch } from "./PaperSwatch";
import { UseUp } from "./UseUp";
import { capital, small } from "./words";

/** What is left of each kit: what pages hold is dimmed, what is gone an outline. */
export function Kits({ things, onSearch }: { things: readonly StashItemView[]; onSearch: (words: string) => void }) {
  const kits = new Map<string, StashItemView[]>();
  for (const thing of things) {
    const { kit } = thing.item;
    if (kit) kits.set(kit, [...(kits.get(kit) ?? []), thing]);
  }
  if (kits.size === 0) return null;
  return (
    <aside aria-label="Kits" className="sheet grid gap-4">
      <div className="flex items-baseline justify-between">
        <h2 className="text-[17px]">Kits</h2>
        <span className="text-[13px] text-second">what is gone is an outline</span>
      </div>
      {[...kits].map(([kit, own]) => {
        const count = own.reduce((sum, t) => sum + t.item.count, 0);
        const held = own.reduce((sum, t) => sum + t.held, 0);
        return (
          <section key={kit} aria-label={kit} className="border-hairline border-t pt-2">
            <div className="flex items-baseline justify-between">
              <button
                type="button"
                className="font-bold font-heading hover:underline"
                onClick={() => onSearch(`kit ${kit}`)}
              >
                {kit}
              </button>
              <span className="text-second">
                <b className="text-ink">{count - held}</b> of {count} free
              </span>
            </div>
            <Tape share={count > 0 ? held / count : 0} />
            <div className="mt-1.5 flex flex-wrap gap-1">
              {marksOf(own).map(([thing, n]) => (
                <Mark key={`${thing.id}-${n}`} thing={thing} state={stateOf(thing, n)} />
              ))}
            </div>
            <p className="mt-1 text-[13px] text-second">
              {held === 0 ? "Nothing of it is held." : `${capital(small(held))} held, ${small(count - held)} free.`}
            </p>
            <UseUp kit={kit} things={own} />
          </section>
        );
      })}
    </aside>
  );
}

/** No kit shows more marks than this. */
const MOST_MARKS = 96;

/** A mark for each one of a thing, up to eight of each. */
function marksOf(own: readonly StashItemView[]): [StashItemView, number][] {
  const marks: [StashItemView, number][] = [];
  for (const thing of own) {
    if (marks.length >= MOST_MARKS) break;
    const count = Math.min(8, Math.max(1, thing.item.count));
    for (let n = 0; n < count; n++) marks.push([thing, n]);
  }
  return marks.slice(0, MOST_MARKS);
}

const stateOf = (thing: StashItemView, n: number) =>
  thing.item.count === 0 ? "gone" : n < thing.held ? "held" : "free";

function Mark({ thing, state }: { thing: StashItemView; state: "gone" | "held" | "free" }) {
  if (state === "gone") return <span className="size-[22px] border border-second border-dashed" />;
  const look = <PaperSwatch item={thing.item} side="a" width={22} height={22} perInch={9} />;
  return <span className={state === "held" ? "opacity-45" : ""}>{look}</span>;
}

/** A kit as a tape: what is held is inked over. */
function Tape({ share }: { share: number }) {
  return (
    <svg viewBox="0 0 288 14" className="mt-1 block w-full" aria-hidden="true">
      <rect width="288" height="14" fill="#ffc93c" stroke="#2b2206" />
      {[...Array(36).keys()].map((n) => (
        <path key={n} d={`M${n * 8} 0V${n % 4 === 0 ? 7 : 4}`} stroke="#2b2206" strokeWidth="0.8" />
      ))}
      <rect width={288 * share} height="14" fill="#17263b" />
    </svg>
  );
}
