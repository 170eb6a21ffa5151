import { useRef, useState } from "react";
import { completed, completions } from "./completion";
import type { Lines } from "./useLines";

const EXAMPLES = [
  "photo 4x6 at 3, 2",
  "mat around p1",
  "mat 1/4 around p1",
  "strip 1 3/8 full width at 7 5/8",
  "grid 5x2 of 2 1/4 along the top, staggered",
  "title 5x1 at 4 5/8, 8 1/4",
  "cluster 2x2 at 6, 7 on p1, large",
];

/** A line that begins so is a block; the others say something of the sketch, or are remarks. */
const BLOCK = /^\s*(photo|mat|paper|panel|strip|grid|ring|title|journal|journaling|cluster|accent|wash)\b/i;

/** The blocks' numbers beside their lines: what they are called everywhere else. The lines stand under them unseen, broken as the field
 * breaks them, so that each number is at its line. */
function Gutter({ rows }: { rows: readonly string[] }) {
  let number = 0;
  return (
    <ol
      aria-hidden
      className="pointer-events-none absolute inset-0 whitespace-pre-wrap break-words border border-transparent p-2 pl-[34px] text-[14px] leading-[1.5]"
    >
      {rows.map((row, n) => {
        const isBlock = BLOCK.test(row);
        if (isBlock) number += 1;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is known by its place
          <li key={n} className="relative">
            {isBlock && (
              <span className="absolute -left-[30px] w-[22px] text-right text-[12px] text-second">{number}</span>
            )}
            <span className="invisible">{row === "" ? "\u00a0" : row}</span>
          </li>
        );
      })}
    </ol>
  );
}

/** The sketch typed: a line a block, errors at the word, and what may stand there. */
export function NumberLines({ lines, mayChange }: { lines: Lines; mayChange: boolean }) {
  const area = useRef<HTMLTextAreaElement>(null);
  const [caret, setCaret] = useState(0);
  const [closed, setClosed] = useState(false);
  const rows = lines.text.split("\n");
  const insert = (word: string) => {
    const field = area.current;
    if (!field) return;
    const at = field.selectionStart;
    const before = lines.text.slice(0, at);
    const gap = before === "" || /[\s]$/.test(before) ? "" : " ";
    lines.type(`${before}${gap}${word} ${lines.text.slice(field.selectionEnd)}`);
    field.focus();
  };
  const first = lines.errors[0];
  // What can be typed as it stands; the rest is told in words.
  const words = (first?.allowed ?? []).filter((a) => !a.startsWith("a ") && !a.startsWith("an "));
  const offered = mayChange && !closed ? completions(lines.text, caret, words) : [];
  const complete = (word: string) => {
    const next = completed(lines.text, caret, word);
    lines.type(next.text);
    setCaret(next.caret);
    requestAnimationFrame(() => area.current?.setSelectionRange(next.caret, next.caret));
  };
  return (
    <section aria-labelledby="lines" className="sheet grid gap-2">
      <h2 id="lines">By number</h2>
      <div className="relative min-w-0">
        <Gutter rows={rows} />
        <textarea
          ref={area}
          aria-label="The sketch, a line a block"
          aria-invalid={lines.errors.length > 0}
          aria-describedby="line-errors"
          className="field field-sizing-content block min-h-[320px] w-full resize-y break-words p-2 pl-[34px] text-[14px] leading-[1.5]"
          rows={Math.max(14, rows.length + 1)}
          spellCheck={false}
          readOnly={!mayChange}
          value={lines.text}
          onChange={(e) => {
            lines.type(e.target.value);
            setCaret(e.target.selectionStart);
            setClosed(false);
          }}
          onSelect={(e) => setCaret(e.currentTarget.selectionStart)}
          onKeyDown={(e) => {
            const word = offered[0];
            if (!word) return;
            if (e.key === "Tab" && !e.shiftKey) {
              e.preventDefault();
              complete(word);
            } else if (e.key === "Escape") setClosed(true);
          }}
        />
      </div>
      <p aria-live="polite" className="min-h-[1.4em] text-[13px] text-second">
        {offered.length > 0 ? `Tab writes “${offered[0]}”` : ""}
        {offered.length > 1 ? `; also ${offered.slice(1, 6).join(", ")}` : ""}
      </p>
      <div id="line-errors" aria-live="polite" className="grid gap-1">
        {lines.failure && (
          <p role="alert" className="text-measure">
            {lines.failure}
          </p>
        )}
        {lines.errors.map((e) => (
          <p key={`${e.line}-${e.column}-${e.found}`} role="alert" className="text-measure">
            {e.line > 0 && (
              <button
                type="button"
                className="link mr-1"
                onClick={() => select(area.current, rows, e.line, e.column, e.length)}
              >
                Line {e.line}
              </button>
            )}
            found {e.found}; allowed is {e.allowed.slice(0, 8).join(", ")}
            {e.allowed.length > 8 ? " and others" : ""}.
          </p>
        ))}
      </div>
      {words.length > 0 && mayChange && (
        <div className="flex flex-wrap gap-1">
          {words.slice(0, 14).map((w) => (
            <button key={w} type="button" className="button !px-1.5 !py-0 text-[13px]" onClick={() => insert(w)}>
              {w}
            </button>
          ))}
        </div>
      )}
      <details>
        <summary className="cursor-pointer text-second">How lines are written</summary>
        <ul className="mt-1 grid gap-0.5">
          {EXAMPLES.map((e) => (
            <li key={e}>
              <code>{e}</code>
            </li>
          ))}
        </ul>
        <p className="mt-1 text-second">
          Bottom to top. A kind, an id if you want to choose it, then size and place; the other words in any order.
          Also: turned 8, round, triangle top-left, off left right, in the middle, with 10 of 5/8 (rings), # for a
          remark.
        </p>
      </details>
    </section>
  );
}

/** Marks a word in the text. */
function select(field: HTMLTextAreaElement | null, rows: string[], line: number, column: number, length: number) {
  const before = rows.slice(0, line - 1).reduce((n, row) => n + row.length + 1, 0);
  const row = [...(rows[line - 1] ?? "")];
  const start = before + row.slice(0, column - 1).join("").length;
  const end = start + row.slice(column - 1, column - 1 + length).join("").length;
  field?.focus();
  field?.setSelectionRange(start, end);
}
