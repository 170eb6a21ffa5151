import type { ReadingView, SketchDoc } from "@/api/client";
import { Length } from "@/shared/ui/Length";
import { unitOf } from "./model";

/** What Metrosk reads from the sketch: what the fit will hold to. */
export function Understood({ reading, sketch }: { reading: ReadingView | undefined; sketch: SketchDoc }) {
  if (!reading) return null;
  const unit = unitOf(sketch);
  const groups: { title: string; items: { key: string; node: React.ReactNode }[] }[] = [
    {
      title: "Lines",
      items: reading.lines.map((l) => ({
        key: `${l.place}-${l.at}`,
        node: (
          <>
            {l.blocks.join(", ")}: {l.place} at <Length value={l.at} unit={unit} />
          </>
        ),
      })),
    },
    {
      title: "Touching",
      items: reading.contacts.map((c) => ({ key: c.join(), node: c.join(" and ") })),
    },
    {
      title: "Gaps",
      items: reading.gaps.map((g) => ({
        key: g.blocks.join(),
        node: (
          <>
            {g.blocks.join(" and ")}: <Length value={g.width} unit={unit} />
          </>
        ),
      })),
    },
    { title: "Frames", items: reading.frames.map((f) => ({ key: f.join(), node: `${f[0]} frames ${f[1]}` })) },
    { title: "Lies on", items: reading.lies_on.map((l) => ({ key: l.join(), node: `${l[0]} on ${l[1]}` })) },
    {
      title: "Equal",
      items: reading.equal.map((e) => ({
        key: `${e.wide}-${e.blocks.join()}`,
        node: `${e.blocks.join(", ")}: equally ${e.wide ? "wide" : "high"}`,
      })),
    },
    { title: "Off the page", items: reading.bleeding.map((b) => ({ key: b, node: b })) },
  ];
  return (
    <section aria-labelledby="understood">
      <h2 id="understood">What is read from it</h2>
      <p className="text-second">The fit holds to this.</p>
      {groups
        .filter((g) => g.items.length > 0)
        .map((g) => (
          <details key={g.title} className="border-hairline border-t py-1" open={g.title === "Lines"}>
            <summary className="cursor-pointer font-semibold">
              {g.title} <span className="font-normal text-second">{g.items.length}</span>
            </summary>
            <ul className="ml-4 list-disc pl-1">
              {g.items.map((i) => (
                <li key={i.key}>{i.node}</li>
              ))}
            </ul>
          </details>
        ))}
    </section>
  );
}
