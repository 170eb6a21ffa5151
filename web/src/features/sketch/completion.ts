// Words that complete what is being typed by number.

/** Words that begin a line, and those that may follow anywhere: what the language knows without asking. */
const FIRST = [
  "photo",
  "mat",
  "paper",
  "strip",
  "grid",
  "ring",
  "title",
  "journal",
  "cluster",
  "accent",
  "wash",
  "page",
];
const LATER = [
  "at",
  "around",
  "along",
  "full",
  "width",
  "height",
  "off",
  "left",
  "right",
  "top",
  "bottom",
  "in",
  "the",
  "middle",
  "turned",
  "round",
  "triangle",
  "staggered",
  "large",
  "medium",
  "small",
  "gap",
  "with",
  "on",
  "of",
];

/** The word that ends at the caret, if the caret stands at a word's end. */
function begun(text: string, caret: number): { word: string; first: boolean } | undefined {
  const after = text[caret];
  if (after !== undefined && /[a-z-]/i.test(after)) return undefined;
  const line = text.slice(text.lastIndexOf("\n", caret - 1) + 1, caret);
  const word = /[a-z-]+$/i.exec(line)?.[0];
  return word ? { word: word.toLowerCase(), first: line.trim() === word } : undefined;
}

/** Words that the word at the caret may become, the likeliest first. `allowed` is what the reader of lines says may stand at its error. */
export function completions(text: string, caret: number, allowed: readonly string[]): string[] {
  const at = begun(text, caret);
  if (!at || at.word.length < 2) return [];
  const known = [...allowed, ...(at.first ? FIRST : LATER)].map((w) => w.toLowerCase());
  const fitting = known.filter((w) => w.startsWith(at.word) && w !== at.word);
  return known.includes(at.word) ? [] : [...new Set(fitting)];
}
