import { useRef } from "react";
import { type EditorHandle, LineEditor } from "./LineEditor";
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

/** The sketch typed: a line a block, errors at the word, and what may stand there. */
export function NumberLines({ lines, mayChange }: { lines: Lines; mayChange: boolean }) {
  const editor = useRef<EditorHandle>(null);
  const first = lines.errors[0];
  // What can be typed as it stands; the rest is told in words.
  const words = (first?.allowed ?? []).filter((a) => !a.startsWith("a ") && !a.startsWith("an "));
  return (
    <section aria-labelledby="lines" className="sheet grid gap-2">
      <div className="flex items-baseline justify-between">
        <h2 id="lines">By number</h2>
        <span className="text-[13px] text-second">bottom to top, as they lie</span>
      </div>
      <LineEditor
        ref={editor}
        text={lines.text}
        errors={lines.errors}
        allowed={words}
        mayChange={mayChange}
        onType={lines.type}
      />
      <div id="line-errors" aria-live="polite" className="grid gap-1">
        {lines.failure && (
          <p role="alert" className="text-measure">
            {lines.failure}
          </p>
        )}
        {lines.errors.map((e) => (
          <p key={`${e.line}-${e.column}-${e.found}`} role="alert" className="text-measure">
            {e.line > 0 && (
              <button type="button" className="link mr-1" onClick={() => editor.current?.select(e)}>
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
            <button
              key={w}
              type="button"
              className="button !px-1.5 !py-0 text-[13px]"
              onClick={() => editor.current?.insert(w)}
            >
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
          remark. While a word is being typed, Tab completes it.
        </p>
      </details>
    </section>
  );
}
