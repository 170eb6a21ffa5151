import { useEffect, useState } from "react";
import { type HandDoc, type RemedyDoc, takeAway, type WritingDoc, type WrittenDoc } from "@/api/client";
import { useMe } from "@/features/people/useMe";
import type { Unit } from "@/shared/lengths/length";
import { Length, Sentence } from "@/shared/ui/Length";
import { MeasureHand } from "./MeasureHand";
import { forgotten, isSameHand } from "./model";
import { WritingShape } from "./WritingShape";

type Props = {
  /** The page's id. */
  page: string;
  /** Whether all that is shown is saved: what she takes away is what the house knows. */
  saved: boolean;
  writing: WritingDoc | undefined;
  written: WrittenDoc | null;
  sentence: string;
  /** Printed type that comes with the application. */
  types: readonly HandDoc[];
  unit: Unit;
  mayChange: boolean;
  /** Where it stands, to be changed. */
  where: React.ReactNode;
  onChange: (change: Partial<WritingDoc>, reason: string) => void;
  onRemedy: (remedy: RemedyDoc) => void;
};

/** The writing in her hand: how many lines it takes, what is over, whether the date still fits, and what would make it fit. */
export function WritingLedger({
  page,
  saved,
  writing,
  written,
  sentence,
  types,
  unit,
  mayChange,
  where,
  onChange,
  onRemedy,
}: Props) {
  const hands = useMe().data?.defaults.hands ?? [];
  const [measuring, setMeasuring] = useState(false);
  const own = writing?.hand;
  const isKnown = own && [...hands, ...types].some((h) => isSameHand(own, h));
  const byHand = own && !isKnown ? [...hands, own] : hands;
  const all: HandDoc[] = [...byHand, ...types];
  const missing = forgotten(writing);
  return (
    <section aria-labelledby="writing-ledger" className="grid gap-2">
      <h2 id="writing-ledger" className="text-[17px]">
        Writing
      </h2>
      <fieldset disabled={!mayChange} className="grid gap-2">
        <div className="flex flex-wrap items-center gap-2">
          <label className="flex items-center gap-1.5">
            in
            <select
              className="field"
              value={own ? String(all.findIndex((h) => isSameHand(own, h))) : ""}
              onChange={(e) => {
                const hand = all[Number(e.target.value)];
                if (hand) onChange({ hand, pitch: null }, `writing in ${hand.name}`);
              }}
            >
              {!own && <option value="">no hand yet</option>}
              {byHand.map((h, n) => (
                <option key={h.name + String(n)} value={String(n)}>
                  {h.name}
                </option>
              ))}
              {types.map((h, n) => (
                <option key={h.name} value={String(byHand.length + n)}>
                  {h.name}
                </option>
              ))}
            </select>
          </label>
          <button type="button" className="button px-2 py-0.5" onClick={() => setMeasuring(true)}>
            Measure my hand
          </button>
        </div>
        {where}
        <WritingShape shape={writing?.shape} unit={unit} onChange={(shape, reason) => onChange({ shape }, reason)} />
        <SavedText
          label="What the writing says"
          rows={5}
          value={writing?.text ?? ""}
          onCommit={(text) => onChange({ text }, "writing changed")}
        />
        <div className="grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-2 gap-y-1">
          {(["date", "place", "names"] as const).map((field) => (
            <SavedText
              key={field}
              label={field}
              value={writing?.[field] ?? ""}
              onCommit={(text) => onChange({ [field]: text }, `${field} for the page`)}
            />
          ))}
        </div>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={writing?.date_elsewhere ?? false}
            onChange={(e) =>
              onChange(
                { date_elsewhere: e.target.checked || null },
                e.target.checked ? "date stands elsewhere" : "date kept in the writing",
              )
            }
          />
          these stand somewhere else on the page
        </label>
      </fieldset>
      {written ? (
        <Counted written={written} unit={unit} mayChange={mayChange} onRemedy={onRemedy} />
      ) : (
        <p className="text-second">
          {own
            ? "There is no space for writing: the sketch has no block for it, and nothing on the page is free."
            : "Choose a hand, or measure yours once, and the lines are counted."}
        </p>
      )}
      {written && saved && (
        <a className="button justify-self-start px-2 py-0.5" href={takeAway.writing(page)}>
          Guide lines and strips as PDF
        </a>
      )}
      {missing.length > 0 && <p className="text-[13px] text-measure">Not said yet: {missing.join(", ")}.</p>}
      {measuring && (
        <MeasureHand
          sentence={sentence}
          unit={unit}
          hands={hands}
          onClose={() => setMeasuring(false)}
          onMeasured={(hand) => onChange({ hand, pitch: null }, `writing in ${hand.name}`)}
        />
      )}
    </section>
  );
}

function Counted({
  written,
  unit,
  mayChange,
  onRemedy,
}: {
  written: WrittenDoc;
  unit: Unit;
  mayChange: boolean;
  onRemedy: (remedy: RemedyDoc) => void;
}) {
  const { space, room, kept, lines, over, words_over, spare, too_wide, kept_too_wide, pitch } = written;
  const row = "flex justify-between gap-3 border-hairline border-t py-0.5";
  return (
    <div role="status">
      <p className={row}>
        <span>
          lines in <Length value={space.w} unit={unit} /> × <Length value={space.h} unit={unit} />, one each{" "}
          <Length value={pitch} unit={unit} withUnit />
        </span>
        <span className="num">{room}</span>
      </p>
      <p className={row}>
        <span>kept for date, place and names</span>
        <span className="num">{kept}</span>
      </p>
      <p className={row}>
        <span>your text takes</span>
        <span className="num">{lines.length}</span>
      </p>
      <p className={`${row} font-semibold ${over > 0 ? "text-measure" : "text-pin"}`}>
        <span>{over > 0 ? "over" : "to spare"}</span>
        <span className="num">
          {over > 0
            ? `${over} ${over === 1 ? "line" : "lines"}, ${words_over} ${words_over === 1 ? "word" : "words"}`
            : `${spare} ${spare === 1 ? "line" : "lines"}`}
        </span>
      </p>
      {too_wide.length > 0 && (
        <p className="text-measure">
          Wider than the space:{" "}
          {too_wide
            .slice(0, 5)
            .map((w) => `“${w}”`)
            .join(", ")}
          .
        </p>
      )}
      {kept_too_wide && <p className="text-measure">Date, place and names are wider than one line.</p>}
      {written.remedies.length > 0 && (
        <ul aria-label="What would make it fit">
          {written.remedies.map((remedy) => (
            <li key={remedy.what} className="flex items-center justify-between gap-2 border-hairline border-t py-1">
              <span>
                <Sentence text={remedy.text} />: fits
              </span>
              {mayChange && remedy.what !== "shorter" && (
                <button
                  type="button"
                  className="button px-2 py-0.5 text-[13px]"
                  aria-label={`Try it: ${remedy.text}`}
                  onClick={() => onRemedy(remedy)}
                >
                  Try it
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** A field whose text is kept when she leaves it. */
function SavedText({
  label,
  value,
  rows,
  onCommit,
}: {
  label: string;
  value: string;
  rows?: number;
  onCommit: (text: string) => void;
}) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const commit = () => {
    if (text !== value) onCommit(text);
  };
  if (rows) {
    return (
      <label>
        <span className="sr-only">{label}</span>
        <textarea
          className="field w-full px-2 py-1"
          rows={rows}
          maxLength={20_000}
          placeholder={label}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={commit}
        />
      </label>
    );
  }
  return (
    <label className="contents">
      <span className="text-second">{label}</span>
      <input
        className="field px-2"
        value={text}
        maxLength={200}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === "Enter" && commit()}
      />
    </label>
  );
}
