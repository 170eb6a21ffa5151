import { useId, useState } from "react";
import type { BlockDoc, FitDoc } from "@/api/client";
import { Choice, Row } from "./Choice";
import { atFold, canBreak, foldWays, MOST_LETTERS, titleWords, withAtFold } from "./holding";

type Props = { fit: FitDoc; block: BlockDoc; change: (fit: FitDoc, reason: string) => void };

/** Where a block goes that would stand on the fold, that it stands on both pages, or the words between which a title is broken. */
export function AtFold({ fit, block, change }: Props) {
  const [asks, setAsks] = useState(false);
  const ways = foldWays(block.kind);
  const isSpread = fit.target.pages === 2;
  if (!isSpread || ways.length === 0) return null;
  const chosen = atFold(fit, block.id);
  return (
    <>
      <Choice
        label="At the fold"
        value={asks ? "across" : chosen}
        options={ways}
        onChoose={(way) => {
          // A title can't be broken before its words are known.
          setAsks(way.value === "across");
          if (way.value !== "across")
            change(withAtFold(fit, block.id, way.value), `${block.id} at the fold: ${way.label}`);
        }}
      />
      {(asks || chosen === "across") && (
        <Words
          key={titleWords(fit, block.id)}
          words={titleWords(fit, block.id)}
          take={(words) => {
            setAsks(false);
            change(withAtFold(fit, block.id, "across", words), `${block.id} across the fold, between two words`);
          }}
        />
      )}
    </>
  );
}

/** The words of a title that runs across the fold. */
function Words({ words, take }: { words: string; take: (words: string) => void }) {
  const [typed, setTyped] = useState(words);
  const [said, setSaid] = useState(false);
  const [field, hint] = [useId(), useId()];
  const settle = () => {
    const text = typed.trim();
    setSaid(text !== "" && !canBreak(text));
    if (canBreak(text) && text !== words) take(text);
  };
  return (
    <>
      <Row label="Its words" of={field}>
        <input
          id={field}
          className="field min-w-0 flex-1 py-1"
          aria-describedby={hint}
          aria-invalid={said}
          maxLength={MOST_LETTERS}
          placeholder="two words or more"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={settle}
          onKeyDown={(e) => {
            if (e.key === "Enter") settle();
          }}
        />
      </Row>
      <p id={hint} role={said ? "alert" : undefined} className={said ? "text-measure" : "text-second"}>
        {said
          ? `“${typed.trim()}” is one word: a title breaks between two words, so it needs two or more.`
          : "The fold comes between two of them; letters and spaces are taken as equally wide."}
      </p>
    </>
  );
}
