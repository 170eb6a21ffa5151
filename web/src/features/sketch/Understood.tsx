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
};

type Item = { key: string; node: React.ReactNode; link?: LinkDoc };

const ADDED: Record<string, string> = {
  line: "on one line",
  equal: "equal",
  touch: "touching",
  mirrored: "each other's image",
};

/** What Metrosk reads from the sketch, and what of it the fit holds to. */
export function Understood({ reading, sketch, onSketch, fit, onFit }: Props) {
  if (!reading) return null;
  const unit = unitOf(sketch);
  const groups: { title: string; items: Item[] }[] = [
    {
      title: "Lines",
      items: reading.lines.map((l) => ({
        key: `${l.place}-${l.at}`,
        link: { what: "line", along: l.along, blocks: [...l.blocks] },
        node: (
          <>
            <Sentence text={l.blocks.join(", ")} />: {l.place} at <Length value={l.at} unit={unit} />
          </>
        ),
      })),
    },
    {
      title: "Touching",
      items: reading.contacts.map((c) => ({
        key: c.join(),
        link: { what: "touch", blocks: [...c] },
        node: <Sentence text={c.join(" and ")} />,
      })),
    },
    {
      title: "Gaps",
      items: reading.gaps.map((g) => ({
        key: g.blocks.join(),
        link: { what: "gap", blocks: [...g.blocks] },
        node: (
          <>
            <Sentence text={g.blocks.join(" and ")} />: <Length value={g.width} unit={unit} />
          </>
        ),
      })),
    },
    {
      title: "Equal",
      items: reading.equal.map((e) => ({
        key: `${e.wide}-${e.blocks.join()}`,
        link: { what: "equal", along: e.wide ? "width" : "height", blocks: [...e.blocks] },
        node: <Sentence text={`${e.blocks.join(", ")}: equally ${e.wide ? "wide" : "high"}`} />,
      })),
    },
    {
      title: "Images of each other",
      items: reading.mirrored.map((m) => ({
        key: `${m.across}-${m.blocks.join()}`,
        link: { what: "mirrored", along: m.across ? "across" : "down", blocks: [...m.blocks] },
        node: (
          <Sentence
            text={`${m.blocks.join(" and ")}, ${m.across ? "left and right" : "top and bottom"} of the middle`}
          />
        ),
      })),
    },
    {
      title: "Lies on",
      items: reading.lies_on.map((l) => ({
        key: l.join(),
        link: { what: "lies-on", blocks: [...l] },
        node: <Sentence text={`${l[0]} on ${l[1]}`} />,
      })),
    },
    {
      title: "Frames",
      items: reading.frames.map((f) => ({ key: f.join(), node: <Sentence text={`${f[0]} frames ${f[1]}`} /> })),
    },
    { title: "Off the page", items: reading.bleeding.map((b) => ({ key: b, node: <Sentence text={b} /> })) },
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
            <details key={g.title} className="border-hairline border-t py-1" open={g.title === "Lines"}>
              <summary className="cursor-pointer font-semibold">
                {g.title}{" "}
                <span className="font-normal text-second">
                  {g.items.length}
                  {g.items.some((i) => !held(i)) ? `, ${g.items.filter((i) => !held(i)).length} off` : ""}
                </span>
              </summary>
              <ul className={fit && onFit ? "ml-1" : "ml-4 list-disc pl-1"}>
                {g.items.map((i) => (
                  <li key={i.key}>
                    {fit && onFit && i.link ? (
                      <Switch fit={fit} link={i.link} onFit={onFit}>
                        {i.node}
                      </Switch>
                    ) : (
                      i.node
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

function Switch({ fit, link, onFit, children }: SwitchProps) {
  const on = holdsTo(fit, link);
  return (
    <label className="flex items-baseline gap-2">
      <input
        type="checkbox"
        checked={on}
        onChange={() => onFit(switched(fit, link), on ? "a reading switched off" : "a reading switched on")}
      />
      <span className={on ? "" : "text-second line-through"}>{children}</span>
    </label>
  );
}
