// What a maker decides about words, as changes of the plan's section.

import type {
  BlockDoc,
  BoxDoc,
  HandDoc,
  LayoutDoc,
  LetterTrayDoc,
  PlanDoc,
  RemedyDoc,
  TitleDoc,
  TitleSettingDoc,
  WordsPlaceDoc,
  WordsSectionDoc,
  WritingDoc,
  WrittenDoc,
} from "@/api/client";
import { fitOf, withFit } from "@/features/plan/sections";
import { freeId } from "@/features/sketch/model";

/** The plan with another title. Whatever changes what is to be set takes back the setting that she took, and with it the letters. */
export function withTitle(plan: PlanDoc, change: Partial<TitleDoc>): PlanDoc {
  const { taken: _, uses: __, manner: ___, ...title } = plan.words?.title ?? { text: "" };
  return withWords(plan, { title: clean({ ...title, ...change }) });
}

/** The plan with a setting taken: its letters are spent. */
export function withSetting(plan: PlanDoc, setting: TitleSettingDoc): PlanDoc {
  const title = plan.words?.title ?? { text: "" };
  return withWords(plan, { title: { ...title, taken: setting.taken, uses: setting.uses, manner: setting.manner } });
}

/** The plan with no setting taken: its letters are free again. */
export const withoutSetting = (plan: PlanDoc): PlanDoc => withTitle(plan, {});

/** The plan with other writing. */
export function withWriting(plan: PlanDoc, change: Partial<WritingDoc>): PlanDoc {
  return withWords(plan, { writing: clean({ ...plan.words?.writing, ...change }) });
}

/** The plan with what makes the writing fit; none where that is hers to do. */
export function withRemedy(plan: PlanDoc, written: WrittenDoc, remedy: RemedyDoc): PlanDoc | undefined {
  const { w, h } = written.space;
  if (remedy.what === "pitch") return withWriting(plan, { pitch: remedy.to });
  if (remedy.what === "wider") return withWriting(plan, { space: { w: remedy.to, h } });
  if (remedy.what === "taller") return withWriting(plan, { space: { w, h: remedy.to } });
  if (remedy.what === "date-elsewhere") return withWriting(plan, { date_elsewhere: true });
  return undefined;
}

function withWords(plan: PlanDoc, words: Partial<WordsSectionDoc>): PlanDoc {
  return { ...plan, words: { ...plan.words, ...words } };
}

/** Without fields that say nothing. */
function clean<T extends object>(document: T): T {
  const says = ([, value]: [string, unknown]) => value !== undefined && value !== null && value !== "";
  const kept = Object.fromEntries(Object.entries(document).filter(says));
  return ("text" in document ? { text: document.text, ...kept } : kept) as T;
}

/** What a place for words is called. */
export function placeSaid(
  place: WordsPlaceDoc,
  number: string | undefined,
  { pages, page: { w: width } }: LayoutDoc["canvas"],
): string {
  const isAcross = place.box.x < width && place.box.x + place.box.w > width;
  const onPage = place.page === 0 ? ", left page" : ", right page";
  const page = pages < 2 ? "" : isAcross ? ", across the fold" : onPage;
  if (place.kind === "free") return `where nothing lies${page}`;
  if (place.kind === "photo") return `on photo ${number ?? place.key}, beside what stays in sight`;
  const names: Record<string, string> = {
    title: "the title block",
    journal: "the writing block",
    accent: "the tag or banner",
    paper: "the panel",
  };
  return `${names[place.block ?? ""] ?? `the ${place.block ?? "block"}`} ${number ?? place.key}${page}`;
}

const contains = (outer: BoxDoc, inner: BoxDoc) =>
  outer.x <= inner.x &&
  outer.y <= inner.y &&
  outer.x + outer.w >= inner.x + inner.w &&
  outer.y + outer.h >= inner.y + inner.h;

/** So far a banner shows round the title, in inches. */
const BANNER_SHOWS = 0.25;

/** The plan with a banner laid behind the title's block; none where the sketch has no such block, or one with a banner. */
export function withBanner(plan: PlanDoc, block: string | null | undefined): PlanDoc | undefined {
  const fit = fitOf(plan);
  const { blocks, canvas, unit } = fit.sketch;
  const at = blocks.findIndex((b) => b.kind === "title" && b.id === block);
  const title = blocks[at];
  if (!title) return undefined;
  const isUnder = ({ kind, box }: BlockDoc) => kind === "accent" && contains(box, title.box);
  if (blocks.slice(0, at).some(isUnder)) return undefined;
  const shows = unit === "mm" ? BANNER_SHOWS * 25.4 : BANNER_SHOWS;
  const [width, height] = [canvas.page.w * canvas.pages, canvas.page.h];
  const [x, y] = [Math.max(0, title.box.x - shows), Math.max(0, title.box.y - shows)];
  const w = Math.min(width, title.box.x + title.box.w + shows) - x;
  const h = Math.min(height, title.box.y + title.box.h + shows) - y;
  const banner = {
    id: freeId(fit.sketch, "a"),
    kind: "accent",
    box: { x, y, w, h },
    ...(title.turn ? { turn: title.turn } : {}),
  };
  const sketch = { ...fit.sketch, blocks: [...blocks.slice(0, at), banner, ...blocks.slice(at)] };
  return withFit(plan, { ...fit, sketch });
}

/** What the line under the tape says. */
export function standing(
  title: TitleDoc | null | undefined,
  setting: TitleSettingDoc | undefined,
  written: WrittenDoc | null | undefined,
): string {
  const ofTitle = !title?.text.trim()
    ? "There is no title yet."
    : !setting
      ? "The title can't be set so."
      : setting.is_taken
        ? "The title is set."
        : "The title fits.";
  if (!written) return ofTitle;
  if (written.over > 0) {
    return `${ofTitle} The writing is ${written.over} ${written.over === 1 ? "line" : "lines"} over.`;
  }
  return `${ofTitle} ${written.fits ? "The writing fits." : "A word is wider than the space for writing."}`;
}

/** The setting that is shown: the one that she points at, the one that she took, or the first. */
export function shownSetting(settings: readonly TitleSettingDoc[], chosen: number | undefined): number {
  if (chosen !== undefined && chosen < settings.length) return chosen;
  const taken = settings.findIndex((s) => s.is_taken);
  return Math.max(0, taken);
}

/** The part of the page that words lie on, with something round it. */
export function regionOf(spaces: readonly BoxDoc[], page: { w: number; h: number }, room: number): BoxDoc {
  const left = Math.max(0, Math.min(...spaces.map((s) => s.x)) - room);
  const top = Math.max(0, Math.min(...spaces.map((s) => s.y)) - room);
  const right = Math.min(page.w, Math.max(...spaces.map((s) => s.x + s.w)) + room);
  const bottom = Math.min(page.h, Math.max(...spaces.map((s) => s.y + s.h)) + room);
  return { x: left, y: top, w: Math.max(right - left, room), h: Math.max(bottom - top, room) };
}

/** For each letter of a set how many this setting spends. */
export function spentOf(setting: TitleSettingDoc | undefined, set: string): ReadonlyMap<string, number> {
  return new Map(Object.entries(setting?.uses[set] ?? {}));
}

/** The sets that a title may be set in. */
export function mayUse(title: TitleDoc | null | undefined, set: string): boolean {
  const sets = title?.sets ?? [];
  return sets.length === 0 || sets.includes(set);
}

/** The list of sets after one is ticked or not; none where all may be used. */
export function withSet(title: TitleDoc | null | undefined, trays: readonly LetterTrayDoc[], set: string, on: boolean) {
  const now = trays.map((t) => t.id).filter((id) => (id === set ? on : mayUse(title, id)));
  return now.length === trays.length ? undefined : now;
}

/** Fields of a page's writing that nobody should forget, and still lack. */
export function forgotten(writing: WritingDoc | null | undefined): string[] {
  const fields = [
    ["date", writing?.date],
    ["place", writing?.place],
    ["names", writing?.names],
  ] as const;
  return fields.filter(([, said]) => !said?.trim()).map(([name]) => name);
}

/** Whether two hands are the same one. */
export const isSameHand = (a: HandDoc | null | undefined, b: HandDoc) =>
  a?.name === b.name && a.sentence === b.sentence && a.pitch === b.pitch && (a.unit ?? "in") === (b.unit ?? "in");
