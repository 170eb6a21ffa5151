// What could not be saved yet, kept in the browser by person and thing (a page's steps, a sketch being drawn). Each tab keeps its own; those
// of a tab that is gone are taken over by the next that opens the thing. Plans of one draft share what is the same in them, and so does
// what is stored: a browser keeps an object once that is referred to twice.

import { createStore, del, entries, get, keys, set } from "idb-keyval";

const store = createStore("metrosk-drafts", "drafts");

const TAB_KEY = "metrosk-tab";

/** A draft's key: whose it is, of what, and of which tab. */
type Key = [person: string, thing: string, tab: string];

export type Kept<T> = { draft: T /** What it is of, in a person's words. */; name: string; at: number };

function tab(): string {
  const known = sessionStorage.getItem(TAB_KEY);
  if (known) return known;
  const made = crypto.randomUUID();
  sessionStorage.setItem(TAB_KEY, made);
  return made;
}

const lockName = (thing: string, of: string) => `metrosk-open-${thing}-${of}`;

/** Holds a thing for this tab, until the returned function lets go. */
export function holdThing(thing: string): () => void {
  let letGo = () => {};
  const held = new Promise<void>((resolve) => {
    letGo = resolve;
  });
  navigator.locks?.request(lockName(thing, tab()), { ifAvailable: true }, () => held).catch(() => {});
  return letGo;
}

/** The draft of a thing: this tab's own, or that of a tab that is gone. A browser without storage has none. */
export async function findDraft<T>(person: string, thing: string): Promise<Kept<T> | undefined> {
  try {
    const own = await get<Kept<T>>([person, thing, tab()], store);
    if (own) return own;
    const open = new Set((await navigator.locks?.query())?.held?.map((l) => l.name));
    const left = (await keys<Key>(store)).find(
      ([who, of, by]) => who === person && of === thing && !open.has(lockName(thing, by)),
    );
    const found = left && (await get<Kept<T>>(left, store));
    if (!left || !found) return undefined;
    await set([person, thing, tab()], found, store);
    await del(left, store);
    return found;
  } catch {
    return undefined;
  }
}

/** Keeps a draft; whether there was room for it. */
export async function keepDraft<T>(person: string, thing: string, name: string, draft: T): Promise<boolean> {
  try {
    await set([person, thing, tab()], { draft, name, at: Date.now() } satisfies Kept<T>, store);
    return true;
  } catch {
    // No room, or no storage at all: what is on screen is all there is.
    return false;
  }
}

export async function dropDraft(person: string, thing: string): Promise<void> {
  await del([person, thing, tab()], store).catch(() => {});
}

/** Everything of a person's that waits in this browser. */
export async function allDrafts(person: string): Promise<{ thing: string; name: string; at: number }[]> {
  const all = await entries<Key, Kept<unknown>>(store).catch(() => []);
  const own = all.filter(([[who]]) => who === person);
  return own.map(([[, thing], kept]) => ({ thing, name: kept.name, at: kept.at })).sort((a, b) => a.at - b.at);
}
