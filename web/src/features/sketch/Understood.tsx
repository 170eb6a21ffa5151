import type { FitDoc, LinkDoc, ReadingView, SketchDoc } from "@/api/client";
import { Length, Sentence } from "@/shared/ui/Length";
import { AddReading } from "./AddReading";
import { holdsTo, switched, unadded } from "./holds";
import { unitOf } from "./model";
import { NearLines } from "./NearLines";

type Props = {
  reading: ReadingView | undefined;
  sketch: SketchDoc;
  /** Edges that nearly agree are offered to be made one. */
  onSketch?: ((sketch: SketchDoc, reason: string) => void) | undefined;
  /** On a page's own sketch: readings are switched off and added for that page. */
  fit?: FitDoc | undefined;
  onFit?: ((fit: FitDoc, reason: string) => void) | undefined;
  /** A reading is pointed at: it lights on the page. */
  onPoint?: ((pointed: Pointed | undefined) => void) | undefined;
};

/** What a reading is about: blocks, and the line that they share. */
export type Pointed = { blocks: readonly string[]; line?: { along: string; at: number } };

type Item = Pointed & { key: string; says: React.ReactNode; link?: LinkDoc };

const ADDED: Record<string, string> = {
  line: "on one line",
  equal: "equal",
  touch: "touching",
  mirrored: "each other's image",
};

/** What Metrosk reads from the sketch, and what of it the fit holds to. */
export function Understood({ reading, sketch, onSketch, fit, onFit, onPoint }: Props) {
  if (!reading) return null;
  const unit = unitOf(sketch);
  const groups: { title: string; items: Item[] }[] = [
    {
      title: "Lines",
      items: reading.lines.map((l) => ({
        key: `${l.place}-${l.at}`,
        link: { what: "line", along: l.along, blocks: [...l.blocks] },
        blocks: l.blocks,
        line: { along: l.along, at: l.at },
        says: (
          <>
            {l.place} at <Length value={l.at} unit={unit} />
          </>
        ),
      })),
    },
    {
      title: "Gaps",
      items: reading.gaps.map((g) => ({
        key: g.blocks.join(),
        link: { what: "gap", blocks: [...g.blocks] },
        blocks: g.blocks,
        says: <Length value={g.width} unit={unit} withUnit />,
      })),
    },
    {
      title: "Touching",
      items: reading.contacts.map((c) => ({
        key: c.join(),
        link: { what: "touch", blocks: [...c] },
        blocks: c,
        says: "touch",
      })),
    },
    {
      title: "Equal sizes",
      items: reading.equal.map((e) => ({
        key: `${e.wide}-${e.blocks.join()}`,
        link: { what: "equal", along: e.wide ? "width" : "height", blocks: [...e.blocks] },
        blocks: e.blocks,
        says: `equally ${e.wide ? "wide" : "high"}`,
      })),
    },
    {
      title: "Mirrored",
      items: reading.mirrored.map((m) => ({
        key: `${m.across}-${m.blocks.join()}`,
        link: { what: "mirrored", along: m.across ? "across" : "down", blocks: [...m.blocks] },
        blocks: m.blocks,
        says: `${m.across ? "left and right" : "above and below"} of the middle`,
      })),
    },
    {
      title: "What lies on what",
      items: [
        ...reading.lies_on.map((l) => ({
          key: l.join(),
          link: { what: "lies-on", blocks: [...l] },
          blocks: l,
          says: "the first on the second",
        })),
        ...reading.frames.map((f) => ({ key: `frames ${f.join()}`, blocks: f, says: "the first frames the second" })),
        ...reading.bleeding.map((b) => ({ key: `off ${b}`, blocks: [b], says: "runs off the page" })),
      ],
    },
  ];
  const own = fit?.readings?.on ?? [];
  const held = (i: Item) => !fit || !i.link || holdsTo(fit, i.link);
  return (
    <>
      {onSketch && <NearLines near={reading.near} sketch={sketch} unit={unit} onChange={onSketch} />}
      <section aria-labelledby="understood">
        {reading.credit && <p className="mb-2">A page from it credits: {reading.credit}</p>}
        <h2 id="understood">What is read from it</h2>
        <p className="text-second">
          {fit && onFit
            ? "The fit holds to what is ticked. Mats and what runs off the page always hold."
            : "The fit holds to this; on a page of its own each can be switched off."}
        </p>
        {groups
          .filter((g) => g.items.length > 0)
          .map((g) => (
            <details key={g.title} className="border-hairline border-t py-1" open>
              <summary className="flex cursor-pointer justify-between font-semibold">
                {g.title}
                <span className="font-normal text-second">
                  {g.items.length}
                  {g.items.some((i) => !held(i)) ? `, ${g.items.filter((i) => !held(i)).length} off` : ""}
                </span>
              </summary>
              <ul className="text-[13.5px]">
                {g.items.map((i) => (
                  <li
                    key={i.key}
                    className="border-hairline border-t py-px hover:bg-lit"
                    onMouseEnter={() => onPoint?.(i)}
                    onMouseLeave={() => onPoint?.(undefined)}
                    onFocus={() => onPoint?.(i)}
                    onBlur={() => onPoint?.(undefined)}
                  >
                    {fit && onFit && i.link ? (
                      <Switch fit={fit} link={i.link} onFit={onFit}>
                        <Said item={i} />
                      </Switch>
                    ) : (
                      <span className="flex min-h-[26px] items-center">
                        <Said item={i} />
                      </span>
                    )}
                  </li>
                ))}
              </ul>
            </details>
          ))}
        {fit && onFit && own.length > 0 && (
          <div className="border-hairline border-t py-1">
            <h3 className="font-semibold">Added by you</h3>
            <ul className="ml-1">
              {own.map((l) => (
                <li key={`${l.what}-${l.along}-${l.blocks.join()}`} className="flex items-baseline gap-2">
                  <span className="grow">
                    <Sentence text={l.blocks.join(", ")} />: {ADDED[l.what] ?? l.what} {l.along ? `(${l.along})` : ""}
                  </span>
                  <button type="button" className="link" onClick={() => onFit(unadded(fit, l), "a reading taken away")}>
                    take away
                  </button>
                </li>
              ))}
            </ul>
          </div>
        )}
        {fit && onFit && <AddReading fit={fit} onFit={onFit} />}
      </section>
    </>
  );
}

type SwitchProps = {
  fit: FitDoc;
  link: LinkDoc;
  onFit: (fit: FitDoc, reason: string) => void;
  children: React.ReactNode;
};

/** What is read, and the blocks it is about. */
function Said({ item }: { item: Item }) {
  return (
    <span className="flex min-w-0 grow items-center justify-between gap-2">
      <span>{item.says}</span>
      <span className="flex flex-wrap justify-end gap-0.5">
        {item.blocks.map((id) => (
          <Sentence key={id} text={id} />
        ))}
      </span>
    </span>
  );
}

function Switch({ fit, link, onFit, children }: SwitchProps) {
  const on = holdsTo(fit, link);
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        checked={on}
        onChange={() => onFit(switched(fit, link), on ? "a reading switched off" : "a reading switched on")}
      />
      <span className={`min-w-0 grow ${on ? "" : "text-second line-through"}`}>{children}</span>
    </label>
  );
}
