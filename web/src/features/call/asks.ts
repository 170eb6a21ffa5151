// What may be asked of a page, and how an ask is written down.

import type { AskDoc, CallDoc } from "@/api/client";

/** Kinds of asks in the words of the form. */
export const WHATS: readonly {
  value: string;
  label: string;
  needs: "count" | "size" | "name" | "papers" | "nothing";
}[] = [
  { value: "pages", label: "so many pages", needs: "count" },
  { value: "page-size", label: "a page of this size", needs: "size" },
  { value: "photos", label: "so many photos at least", needs: "count" },
  { value: "large-photo", label: "a large photo", needs: "size" },
  { value: "sketch", label: "this page's sketch, as it is now", needs: "nothing" },
  { value: "papers", label: "so many papers at least", needs: "papers" },
  { value: "kit", label: "a kit", needs: "name" },
  { value: "technique", label: "a technique", needs: "name" },
  { value: "other", label: "something else", needs: "name" },
];

export const needsOf = (what: string) => WHATS.find((w) => w.value === what)?.needs ?? "name";

/** The next free letter: a, b, c and on. */
export function nextLetter(asks: readonly AskDoc[]): string {
  for (let n = 0; ; n++) {
    const letter = String.fromCharCode(97 + (n % 26)) + (n >= 26 ? String(Math.floor(n / 26) + 1) : "");
    if (!asks.some((a) => a.id === letter)) return letter;
  }
}

/** An ask of another kind keeps its letter, and begins with what is usual there. */
export function ofKind(ask: AskDoc, what: string, unit: string): AskDoc {
  const size = unit === "mm" ? { w: 150, h: 100 } : { w: 6, h: 4 };
  switch (needsOf(what)) {
    case "count":
      return { id: ask.id, what, count: what === "pages" ? 2 : 3 };
    case "papers":
      return { id: ask.id, what, count: 3 };
    case "size":
      return { id: ask.id, what, ...size };
    case "name":
      return { id: ask.id, what, name: ask.name ?? "" };
    default:
      return { id: ask.id, what };
  }
}

/** What is left out of a call is left out of its document too. */
export function withoutGaps(call: CallDoc): CallDoc {
  const kept = Object.entries(call).filter(([, v]) => v !== "" && v !== null && !(Array.isArray(v) && v.length === 0));
  return Object.fromEntries(kept) as CallDoc;
}

/** What is wrong with a call before it is sent, in words; undefined where nothing is. */
export function faultOf(call: CallDoc): string | undefined {
  if (call.name.trim() === "") return "Give the call a name.";
  if (call.due && call.shown && call.due > call.shown)
    return "It is shown before it is due: change one of the two days.";
  const nameless = call.asks?.find((a) => needsOf(a.what) === "name" && !a.name?.trim());
  if (nameless) return `Say what is asked under ${nameless.id}.`;
  const link = call.links?.find((l) => !/^https?:\/\//.test(l.url));
  if (link) return `The address of “${link.name}” begins with https:// or http://.`;
  return undefined;
}
