// Steps that could not be saved yet, kept in the browser. Each tab keeps its own; those of a tab that is gone are taken
// over by the next that opens the page.

import type { Draft } from "./planState";

const TAB_KEY = "metrosk-tab";

function tab(): string {
  const known = sessionStorage.getItem(TAB_KEY);
  if (known) return known;
  const made = crypto.randomUUID();
  sessionStorage.setItem(TAB_KEY, made);
  return made;
}

const prefix = (page: string) => `metrosk-draft-${page}-`;
const lockName = (page: string, of: string) => `metrosk-open-${page}-${of}`;

/** Holds a page for this tab, until the returned function lets go. */
export function holdPage(page: string): () => void {
  let letGo = () => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  navigator.locks?.request(lockName(page, tab()), { ifAvailable: true }, () => held).catch(() => {});
  return letGo;
}

/** The steps that wait for a page: this tab's own, or those of a tab that is gone. */
export async function findDraft(page: string): Promise<Draft | undefined> {
  const own = read(prefix(page) + tab());
  if (own) return own;
  const open = new Set((await navigator.locks?.query())?.held?.map((l) => l.name));
  const keys = Object.keys(localStorage).filter((k) => k.startsWith(prefix(page)));
  const left = keys.find((k) => !open.has(lockName(page, k.slice(prefix(page).length))));
  const draft = left && read(left);
  if (!left || !draft) return undefined;
  keepDraft(page, draft);
  localStorage.removeItem(left);
  return draft;
}

export function keepDraft(page: string, draft: Draft) {
  localStorage.setItem(prefix(page) + tab(), JSON.stringify(draft));
}

export function dropDraft(page: string) {
  localStorage.removeItem(prefix(page) + tab());
}

function read(key: string): Draft | undefined {
  try {
    const draft = JSON.parse(localStorage.getItem(key) ?? "") as Draft;
    return draft.queue.length > 0 ? draft : undefined;
  } catch {
    return undefined;
  }
}
