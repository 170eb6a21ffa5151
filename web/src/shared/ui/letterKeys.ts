// Single letters and digits as commands: only on a page that has the focus, so that dictation and a stray hand set off nothing.

const PAGE = "[data-keys=page]";
const FIELDS = "input, textarea, select, [contenteditable=true]";
/** What closes on Escape by itself, and then gives the focus back. */
const CLOSES = "[role=dialog], [role=alertdialog], [role=menu], [role=listbox]";

const inside = (target: EventTarget | null, what: string) => target instanceof Element && target.closest(what) !== null;

/** Whether letters and digits do anything at all; hers to say. */
export function switchLetterKeys(on: boolean) {
  document.documentElement.dataset.letterKeys = on ? "on" : "off";
}

function isPlain(e: KeyboardEvent) {
  const off = document.documentElement.dataset.letterKeys === "off";
  return !off && !e.ctrlKey && !e.metaKey && !e.altKey && !inside(e.target, FIELDS);
}

/** Whether a letter or digit is meant for the page: it has the focus, and no field in it has. */
export function isForPage(e: KeyboardEvent): boolean {
  return isPlain(e) && inside(e.target, PAGE);
}

/** Whether a letter is meant for the house: wherever nothing is being written and nothing is open. */
export function isForHouse(e: KeyboardEvent): boolean {
  return isPlain(e) && !inside(e.target, CLOSES);
}

/** Escape anywhere beside the page leads back to it, unless it closes something. */
export function leadsToPage(e: KeyboardEvent): boolean {
  return e.key === "Escape" && !e.defaultPrevented && !inside(e.target, `${CLOSES}, ${PAGE}`);
}
