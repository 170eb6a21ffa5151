import { useEffect, useState } from "react";
import type { LetterTrayDoc, SetLineDoc, TitleDoc, TitleSetDoc, TitleSettingDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { Length, Sentence } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { Segments } from "@/shared/ui/Segments";
import { mayUse, withSet } from "./model";

type Props = {
  title: TitleDoc | undefined;
  found: TitleSetDoc | null;
  setting: TitleSettingDoc | undefined;
  trays: readonly LetterTrayDoc[];
  unit: Unit;
  mayChange: boolean;
  /** Where it stands, to be changed. */
  where: React.ReactNode;
  /** Lays a banner behind it; none where there is no block to lay it behind. */
  onBanner: (() => void) | undefined;
  /** What stands in the field, letter by letter. */
  onType: (text: string) => void;
  onChange: (change: Partial<TitleDoc>, reason: string) => void;
};

const ALIGN = [
  { value: "left", label: "left" },
  { value: "centre", label: "middle" },
  { value: "right", label: "right" },
] as const;

/** Where marks are measured from, where it is not the left edge. */
const ALONG: Partial<Record<string, string>> = {
  arc: "Marks are where letters begin, along the arc from its left end.",
  standing: "Marks are upper edges, from the top of the title’s space.",
  turned: "Marks are where letters begin, from the bottom of the title’s space.",
};

/** What the title says, in how many lines and which sets; and for each line how it adds up and in which order its letters are laid. */
export function TitleLedger({
  title,
  found,
  setting,
  trays,
  unit,
  mayChange,
  where,
  onBanner,
  onType,
  onChange,
}: Props) {
  const said = title?.text ?? "";
  const [text, setText] = useState(said);
  useEffect(() => setText(said), [said]);
  const commit = () => {
    if (text.trim() !== said) onChange({ text: text.trim() }, `title: ${text.trim() || "none"}`);
  };
  const laying = title?.laying ?? "halving";
  return (
    <section aria-labelledby="title-ledger" className="grid gap-2">
      <h2 id="title-ledger" className="text-[17px]">
        Title
      </h2>
      <fieldset disabled={!mayChange} className="grid gap-2">
        <label className="grid gap-0.5">
          <span className="sr-only">What the title says</span>
          <input
            className="field px-2 py-1 text-[16px]"
            value={text}
            maxLength={400}
            placeholder="What the title says"
            onChange={(e) => {
              setText(e.target.value);
              onType(e.target.value);
            }}
            onBlur={commit}
            onKeyDown={(e) => e.key === "Enter" && commit()}
          />
        </label>
        {where}
        {onBanner && (
          <button type="button" className="button justify-self-start px-2 py-0.5 text-[13px]" onClick={onBanner}>
            Lay a banner behind it
          </button>
        )}
        <Others title={title} found={found} onChange={onChange} />
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <label className="flex items-center gap-1.5">
            lines
            <select
              className="field"
              value={String(title?.lines ?? "any")}
              onChange={(e) =>
                onChange(
                  { lines: e.target.value === "any" ? "any" : Number(e.target.value) },
                  e.target.value === "any" ? "title on any number of lines" : `title on ${e.target.value} lines`,
                )
              }
            >
              <option value="any">as suits</option>
              {[1, 2, 3, 4].map((n) => (
                <option key={n} value={String(n)}>
                  {n}
                </option>
              ))}
            </select>
          </label>
          <Segments
            label="Where lines stand"
            value={(title?.align ?? "left") as "left" | "centre" | "right"}
            options={ALIGN}
            onChoose={(align) =>
              onChange({ align }, `title ${align === "centre" ? "in the middle" : `at the ${align}`}`)
            }
          />
        </div>
        <LengthField
          label="letters set up and down by"
          value={title?.stagger ?? (unit === "mm" ? 4.7625 : 0.1875)}
          unit={unit}
          least={unit === "mm" ? 1.6 : 0.0625}
          most={unit === "mm" ? 50 : 2}
          inRow
          onCommit={(stagger) => onChange({ stagger }, "how far letters stand up and down")}
        />
        <details>
          <summary className="cursor-pointer font-medium">Sets it may be set in</summary>
          {trays.map((t) => (
            <label key={t.id} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={mayUse(title, t.id)}
                onChange={(e) =>
                  onChange(
                    { sets: withSet(title, trays, t.id, e.target.checked) ?? null },
                    `${t.name} ${e.target.checked ? "may be used" : "left out"}`,
                  )
                }
              />
              {t.name}
            </label>
          ))}
        </details>
      </fieldset>
      {setting && (
        <>
          <Sums setting={setting} trays={trays} unit={unit} />
          <div className="flex flex-wrap items-baseline justify-between gap-2">
            <h3>Lay the letters in this order</h3>
            <label className="text-[13px] text-second">
              <span className="sr-only">How letters are laid</span>
              <select
                className="field"
                value={laying}
                disabled={!mayChange}
                onChange={(e) => onChange({ laying: e.target.value }, "order of laying letters")}
              >
                <option value="halving">first, last, middle, halving</option>
                <option value="centre-out">from the middle out</option>
              </select>
            </label>
          </div>
          {setting.lines.map((line, n) => (
            <details key={String(n)} open={n === 0}>
              <summary className="cursor-pointer text-second">
                {setting.lines.length > 1 ? `line ${n + 1}: ` : ""}
                {line.letters.map((letter) => letter.letter).join(" ")}
              </summary>
              <LayingOrder line={line} which={n + 1} of={setting.lines.length} unit={unit} />
            </details>
          ))}
          {setting.hint && (
            <p className="text-[13px]">
              <Sentence text={setting.hint} />
            </p>
          )}
          <p className="text-[13px] text-second">
            {ALONG[setting.manner] ?? "Marks are left edges, from the left edge of the title’s space."}
          </p>
        </>
      )}
    </section>
  );
}

/** Other titles that she would take: those that can be set come first. */
function Others({ title, found, onChange }: Pick<Props, "title" | "found" | "onChange">) {
  const [text, setText] = useState("");
  const listed = title?.others ?? [];
  const add = () => {
    const other = text.trim();
    if (!other || listed.includes(other)) return;
    onChange({ others: [...listed, other] }, `title considered: ${other}`);
    setText("");
  };
  return (
    <div className="grid gap-1">
      <ul>
        {(found?.others ?? []).map((o) => (
          <li key={o.title} className="flex items-start justify-between gap-2 border-hairline border-t py-1">
            <span>
              {o.title}
              <span className={`block text-[12.5px] ${o.fits ? "text-second" : "text-measure"}`}>{o.text}</span>
            </span>
            <button
              type="button"
              className="button shrink-0 px-2 py-0.5 text-[13px]"
              aria-label={`Set it instead: ${o.title}`}
              onClick={() => {
                const others = [...listed.filter((t) => t !== o.title), ...(title?.text ? [title.text] : [])];
                onChange({ text: o.title, others }, `title: ${o.title}`);
              }}
            >
              Set it instead
            </button>
          </li>
        ))}
      </ul>
      <div className="flex gap-1.5">
        <label className="min-w-0 flex-1">
          <span className="sr-only">Another title that would do</span>
          <input
            className="field w-full px-2"
            placeholder="Another title that would do"
            value={text}
            maxLength={400}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => e.key === "Enter" && add()}
          />
        </label>
        <button type="button" className="button px-2 py-0.5" onClick={add}>
          Keep it in mind
        </button>
      </div>
    </div>
  );
}

function Sums({ setting, trays, unit }: { setting: TitleSettingDoc; trays: readonly LetterTrayDoc[]; unit: Unit }) {
  return (
    <table className="w-full text-[13px]">
      <thead className="text-second">
        <tr>
          {["set", "letters", "gaps", "words apart", "together"].map((head, n) => (
            <th key={head} scope="col" className={`font-normal ${n === 0 ? "text-left" : "pl-2 text-right"}`}>
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {setting.lines.map((line, n) => (
          <tr key={String(n)} className="border-hairline border-t">
            <th scope="row" className="py-0.5 text-left font-normal">
              {trays.find((t) => t.id === line.set)?.name}
            </th>
            <td className="num whitespace-nowrap pl-2 text-right">
              <Length value={line.sum.letters} unit={unit} />
            </td>
            <td className="num whitespace-nowrap pl-2 text-right">
              {line.sum.gaps > 0 ? (
                <>
                  {line.sum.gaps} of <Length value={line.gap} unit={unit} />
                </>
              ) : (
                "none"
              )}
            </td>
            <td className="num whitespace-nowrap pl-2 text-right">
              {line.sum.word_gaps > 0 ? (
                <>
                  {line.sum.word_gaps} of <Length value={line.word_gap} unit={unit} />
                </>
              ) : (
                "none"
              )}
            </td>
            <td className="num whitespace-nowrap pl-2 text-right font-semibold">
              <Length value={line.sum.together} unit={unit} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const TURNS = ["first", "last", "middle"];

function LayingOrder({ line, which, of, unit }: { line: SetLineDoc; which: number; of: number; unit: Unit }) {
  const halving = line.order[0] === 0 && line.order.length > 2;
  return (
    <ol aria-label={of > 1 ? `Line ${which}` : "The line"} className="columns-2 gap-x-5 text-[14px]">
      {line.order.map((at, turn) => {
        const letter = line.letters[at];
        if (!letter) return null;
        return (
          <li key={at} className="flex justify-between gap-2 border-hairline border-t py-0.5">
            <span>
              <strong className="mr-2 inline-block w-5 text-measure">{turn + 1}</strong>
              <strong>{letter.letter}</strong>
              <span className="text-second">
                {letter.letter !== letter.of && ` out of ${letter.of}`}
                {halving && turn < 3 && ` ${TURNS[turn]}`}
              </span>
            </span>
            <span className="num">
              <Length value={letter.mark} unit={unit} />
            </span>
          </li>
        );
      })}
    </ol>
  );
}
