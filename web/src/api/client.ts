// The typed client, and the one place where an answer that is no success becomes an error.

import createClient from "openapi-fetch";
import type { components, paths } from "./generated/schema";
import { currentTeam, setCurrentTeam, withTeam } from "./team";

type Schemas = components["schemas"];
export type SketchView = Schemas["SketchView"];
export type SketchDoc = Schemas["SketchDoc"];
export type ReadingView = Schemas["ReadingView"];
export type WordErrorView = Schemas["WordErrorView"];
export type BlockDoc = Schemas["BlockDoc"];
export type LayoutDoc = Schemas["LayoutDoc"];
export type LayoutBlockDoc = Schemas["LayoutBlockDoc"];
export type ProposalDoc = Schemas["ProposalDoc"];
export type ProposalsDoc = Schemas["ProposalsDoc"];
export type ConflictDoc = Schemas["ConflictDoc"];
export type PlaceDoc = Schemas["PlaceDoc"];
export type BoxDoc = Schemas["BoxDoc"];
export type FitDoc = Schemas["FitDoc"];
export type PlanDoc = Schemas["PlanDoc"];
export type CallDoc = Schemas["CallDoc"];
export type AskDoc = Schemas["AskDoc"];
export type AskView = Schemas["AskView"];
export type CallView = Schemas["CallView"];
export type SeasonView = Schemas["SeasonView"];
export type SeasonCallView = Schemas["SeasonCallView"];
export type MakerView = Schemas["MakerView"];
export type NoticeView = Schemas["NoticeView"];
export type HopView = Schemas["HopView"];
export type HopLinkView = Schemas["HopLinkView"];
export type ChainLinkDoc = Schemas["ChainLinkDoc"];
export type RepeatDoc = Schemas["RepeatDoc"];
export type PastedView = Schemas["PastedView"];
export type BroughtView = Schemas["BroughtView"];
export type ClustersLaidDoc = Schemas["ClustersLaidDoc"];
export type LaidClusterDoc = Schemas["LaidClusterDoc"];
export type LaidPieceDoc = Schemas["LaidPieceDoc"];
export type PageFindingDoc = Schemas["PageFindingDoc"];
export type PageCureDoc = Schemas["PageCureDoc"];
export type ClustersSectionDoc = Schemas["ClustersSectionDoc"];
export type ClusterChoiceDoc = Schemas["ClusterChoiceDoc"];
export type ClusterPieceDoc = Schemas["ClusterPieceDoc"];
export type ScatterDoc = Schemas["ScatterDoc"];
export type LogEntryDoc = Schemas["LogEntryDoc"];
export type LogSectionDoc = Schemas["LogSectionDoc"];
export type LookedBackView = Schemas["LookedBackView"];
export type ToldPageView = Schemas["ToldPageView"];
export type LogSeenDoc = Schemas["LogSeenDoc"];
type PlanChange = Schemas["PlanChange"];
type PlanStep = Schemas["Step"];
export type PinDoc = Schemas["PinDoc"];
export type SlotChoiceDoc = Schemas["SlotChoiceDoc"];
export type PrintDoc = Schemas["PrintDoc"];
export type FaceDoc = Schemas["FaceDoc"];
export type LayerDoc = Schemas["LayerDoc"];
export type MatChoiceDoc = Schemas["MatChoiceDoc"];
export type LiftChoiceDoc = Schemas["LiftChoiceDoc"];
export type StashItemDoc = Schemas["StashItemDoc"];
export type StashItemView = Schemas["StashItemView"];
export type PaperSideDoc = Schemas["PaperSideDoc"];
export type PaperRefDoc = Schemas["PaperRefDoc"];
export type PapersSectionDoc = Schemas["PapersSectionDoc"];
export type PieceChoiceDoc = Schemas["PieceChoiceDoc"];
export type PaperedDoc = Schemas["PaperedDoc"];
export type PaperedPieceDoc = Schemas["PaperedPieceDoc"];
export type PageCutsDoc = Schemas["PageCutsDoc"];
export type CutSheetDoc = Schemas["CutSheetDoc"];
export type CutStepDoc = Schemas["CutStepDoc"];
export type ListedCutDoc = Schemas["ListedCutDoc"];
export type BegunSheetDoc = Schemas["BegunSheetDoc"];
export type WordsSectionDoc = Schemas["WordsSectionDoc"];
export type TitleDoc = Schemas["TitleDoc"];
export type WritingDoc = Schemas["WritingDoc"];
export type HandDoc = Schemas["HandDoc"];
export type LettersDoc = Schemas["LettersDoc"];
export type LetterTrayDoc = Schemas["LetterTrayDoc"];
export type TitleSetDoc = Schemas["TitleSetDoc"];
export type TitleSettingDoc = Schemas["TitleSettingDoc"];
export type SetLineDoc = Schemas["SetLineDoc"];
export type WrittenDoc = Schemas["WrittenDoc"];
export type RemedyDoc = Schemas["RemedyDoc"];
export type WordsSetDoc = Schemas["WordsSetDoc"];
export type LineSlotDoc = Schemas["LineSlotDoc"];
export type WordsPlaceDoc = Schemas["WordsPlaceDoc"];
export type WritingShapeDoc = Schemas["WritingShapeDoc"];
export type BuildSectionDoc = Schemas["BuildSectionDoc"];
export type BuildStepDoc = Schemas["BuildStepDoc"];
export type BuiltDoc = Schemas["BuiltDoc"];
export type RankedPaperDoc = Schemas["RankedPaperDoc"];
export type SaidView = Schemas["SaidView"];
export type PlacedPhotosDoc = Schemas["PlacedPhotosDoc"];
export type PlacedPhotoDoc = Schemas["PlacedPhotoDoc"];
/** The paper to print on, and what lies round and between the photos. */
export type PrintOptions = paths["/api/pages/{id}/prints"]["get"]["parameters"]["query"];
export type PrintSheetView = Schemas["PrintSheetView"];
export type PrintOrderView = Schemas["PrintOrderView"];
export type PrinterView = Schemas["PrinterView"];
export type ChangeDoc = Schemas["ChangeDoc"];
export type RefitDoc = Schemas["RefitDoc"];
export type PageView = Schemas["PageView"];
export type EventView = Schemas["EventView"];
export type PageCard = Schemas["PageCard"];
export type PageChange = Schemas["PageChange"];
export type StationView = Schemas["StationView"];
export type RevisionView = Schemas["RevisionView"];
export type MeView = Schemas["MeView"];
export type DefaultsDoc = Schemas["DefaultsDoc"];
export type TeamPeople = Schemas["TeamPeople"];
export type InviteView = Schemas["InviteView"];
export type Role = Schemas["Role"];
export type CutOrderView = Schemas["CutOrderView"];
export type EntryView = Schemas["EntryView"];
export type GalleryMood = Schemas["GalleryMood"];
export type DifferenceDoc = Schemas["DifferenceDoc"];
export type MadeFromDoc = Schemas["MadeFromDoc"];
export type MachineView = Schemas["MachineView"];
export type CutCureDoc = Schemas["CutCureDoc"];
export type PieceLockDoc = Schemas["PieceLockDoc"];
export type DieChoiceDoc = Schemas["DieChoiceDoc"];
export type Problem = Schemas["Problem"];
export type VersionView = Schemas["VersionView"];
export type SketchRevisionView = Schemas["SketchRevisionView"];

export type PictureView = Schemas["PictureView"];
export type PictureReading = Schemas["PictureReading"];
export type LiftView = Schemas["LiftView"];
export type NearView = Schemas["NearView"];
export type LinkDoc = Schemas["LinkDoc"];

/** What a picture shows: its page's size, how many pages, and where its corners are. */
export type PictureShown = paths["/api/pictures/{id}/reading"]["post"]["parameters"]["query"];

/** The server can't be reached. */
export class OfflineError extends Error {
  constructor() {
    super("The server can't be reached. Nothing that was shown as saved is lost.");
  }
}

const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) => {
    const team = currentTeam();
    if (team) request.headers.set("Metrosk-Team", team);
    return fetch(request).catch((error: Error) => {
      throw error.name === "AbortError" ? error : new OfflineError();
    });
  },
});

/** An answer that is no success, with the server's problem details where there are any. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail || problem.title);
  }
}

/** What was found wrong at a field of what was sent, in the server's words. */
export function fieldError(error: unknown, path: string): string | undefined {
  const findings = error instanceof ApiError ? (error.problem.findings ?? []) : [];
  const found = findings.find((f) => f.path === path);
  return found && `Found ${found.found}; allowed is ${found.allowed}.`;
}

type Answer<T> = { data?: T; error?: unknown; response: Response };

async function refused(error: unknown, response: Response): Promise<never> {
  const known = typeof error === "object" && error !== null && "title" in error;
  const problem = known
    ? (error as Problem)
    : { type: "unknown", title: `The server answered ${response.status}`, status: response.status, detail: "" };
  throw new ApiError(problem);
}

async function taken<T>(answer: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await answer;
  return data !== undefined ? data : refused(error, response);
}

/** An answer without a body. */
async function done(answer: Promise<Answer<unknown>>): Promise<void> {
  const { error, response } = await answer;
  if (!response.ok) await refused(error, response);
}

const at = (id: string) => ({ path: { id } });
const once = (key: string) => ({ "Idempotency-Key": key });

/** The time zone that this browser lives in. */
export const zoneHere = () => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

/** A new key for a write, so that a retried one acts once. */
export const newKey = () => crypto.randomUUID();

export const api = {
  me: async () => {
    const me = await taken(client.GET("/api/me"));
    // The server falls back to another of her teams when she is no longer in this tab's.
    setCurrentTeam(me.team?.id);
    return me;
  },
  signIn: (account: string, password: string) => taken(client.POST("/api/session", { body: { account, password } })),
  signInToDemo: () => taken(client.POST("/api/session/demo")),
  signOut: () => done(client.DELETE("/api/session")),
  chooseTeam: (team: string) => taken(client.PUT("/api/session/team", { body: { team } })),
  limits: () => taken(client.GET("/api/limits")),
  changeMe: (name: string, defaults: DefaultsDoc) => taken(client.PUT("/api/me", { body: { name, defaults } })),
  changePassword: (old: string, next: string) => done(client.PUT("/api/me/password", { body: { old, new: next } })),

  link: (token: string) => taken(client.GET("/api/links/{token}", { params: { path: { token } } })),
  join: (token: string, person: Schemas["NewPerson"]) =>
    taken(client.POST("/api/links/{token}", { params: { path: { token } }, body: person })),
  joinAsMe: (token: string) => taken(client.PUT("/api/links/{token}", { params: { path: { token } } })),

  passwordLink: (token: string) => taken(client.GET("/api/password-links/{token}", { params: { path: { token } } })),
  setPassword: (token: string, password: string) =>
    taken(client.PUT("/api/password-links/{token}", { params: { path: { token } }, body: { password } })),

  team: () => taken(client.GET("/api/team")),
  renameTeam: (name: string) => done(client.PUT("/api/team", { body: { name } })),
  makeTeam: (name: string) => taken(client.POST("/api/teams", { body: { name } })),
  invite: (role: Role) => taken(client.POST("/api/team/invites", { body: { role } })),
  takeInviteBack: (id: string) => done(client.DELETE("/api/team/invites/{id}", { params: at(id) })),
  changeRole: (id: string, role: Role) => done(client.PUT("/api/team/people/{id}", { params: at(id), body: { role } })),
  makePasswordLink: (id: string) => taken(client.POST("/api/team/people/{id}/password-link", { params: at(id) })),
  removeMember: (id: string) => done(client.DELETE("/api/team/people/{id}", { params: at(id) })),

  sketches: (search: string, archived: boolean, suit?: { photos: number; upright: number }) =>
    taken(client.GET("/api/sketches", { params: { query: { search, archived, ...suit } } })),
  sketch: (id: string) => taken(client.GET("/api/sketches/{id}", { params: at(id) })),
  addSketch: (sketch: SketchDoc, key: string, from: { picture?: string; lift?: string } = {}) =>
    taken(client.POST("/api/sketches", { params: { header: once(key), query: from }, body: sketch })),
  rewriteSketch: (id: string, revision: number, sketch: SketchDoc) =>
    taken(
      client.PUT("/api/sketches/{id}/document", { params: { ...at(id), query: { revision } }, body: sketch }),
    ) as Promise<SketchView>,
  sketchRevisions: (id: string) => taken(client.GET("/api/sketches/{id}/revisions", { params: at(id) })),
  sketchRevision: (id: string, revision: number) =>
    taken(
      client.GET("/api/sketches/{id}/revisions/{revision}", { params: { path: { id, revision } } }),
    ) as Promise<SketchDoc>,
  numbers: (text: string, over: SketchDoc) => taken(client.POST("/api/notation", { body: { text, over } })),
  lines: (sketch: SketchDoc) => taken(client.POST("/api/notation/lines", { body: sketch })),
  agree: (sketch: SketchDoc, near: NearView) =>
    taken(client.POST("/api/notation/agree", { body: { sketch, along: near.along, blocks: near.blocks } })),
  importSketches: (file: Blob, key: string) =>
    taken(
      client.POST("/api/sketches/import", {
        params: { header: once(key) },
        body: file as unknown as number[],
        bodySerializer: (body) => body as unknown as Blob,
        headers: { "Content-Type": "application/octet-stream" },
      }),
    ),
  /** Puts a picture in; it is kept upright, without what its camera noted. */
  addPicture: (
    file: Blob,
    name: string,
    key: string,
    as: { photo?: boolean; paper?: boolean } = {},
    signal?: AbortSignal,
  ) =>
    taken(
      client.POST("/api/pictures", {
        ...(signal ? { signal } : {}),
        params: { header: once(key), query: { name, ...as } },
        body: file as unknown as number[],
        bodySerializer: (body) => body as unknown as Blob,
        headers: { "Content-Type": "application/octet-stream" },
      }),
    ),
  pictures: () => taken(client.GET("/api/pictures")),
  photos: () => taken(client.GET("/api/pictures", { params: { query: { photos: true } } })),
  printSheets: (id: string, options: PrintOptions) =>
    taken(client.GET("/api/pages/{id}/prints", { params: { ...at(id), query: options } })),
  printOrders: (id: string) => taken(client.GET("/api/pages/{id}/print-orders", { params: at(id) })),
  sendToPrinter: (id: string, options: PrintOptions, key: string) =>
    taken(
      client.POST("/api/pages/{id}/print-orders", { params: { ...at(id), header: once(key) }, body: options }),
    ) as Promise<PrintOrderView>,
  goOnPrinting: (order: string) => taken(client.POST("/api/print-orders/{id}/go-on", { params: at(order) })),
  cutOrders: (id: string) => taken(client.GET("/api/pages/{id}/cut-orders", { params: at(id) })),
  sendToMachine: (id: string, key: string) =>
    taken(client.POST("/api/pages/{id}/cut-orders", { params: { ...at(id), header: once(key) } })),
  goOnCutting: (order: string) => taken(client.POST("/api/cut-orders/{id}/go-on", { params: at(order) })),
  cuttingMachine: () => taken(client.GET("/api/cutting-machine")),
  setCuttingMachine: (to: MachineView) => taken(client.PUT("/api/cutting-machine", { body: to })),
  galleryEntries: (id: string) => taken(client.GET("/api/pages/{id}/gallery-entries", { params: at(id) })),
  enterInGallery: (id: string, replaces: string | undefined, key: string) =>
    taken(
      client.POST("/api/pages/{id}/gallery-entries", {
        params: { ...at(id), header: once(key) },
        body: replaces ? { replaces } : {},
      }),
    ),
  askGalleryAgain: (entry: string) => taken(client.POST("/api/gallery-entries/{id}/ask-again", { params: at(entry) })),
  withdrawEntry: (entry: string) => taken(client.POST("/api/gallery-entries/{id}/withdraw", { params: at(entry) })),
  gallery: () => taken(client.GET("/api/gallery")),
  setGallery: (to: GalleryMood) => taken(client.PUT("/api/gallery", { body: to })),
  pageDifferences: (id: string) => taken(client.GET("/api/pages/{id}/differences", { params: at(id) })),
  /** A picture made out of another: brought upright, framed, with places blurred. */
  pictureFrom: (picture: string, how: MadeFromDoc, key: string) =>
    taken(client.POST("/api/pictures/{id}/made", { params: { ...at(picture), header: once(key) }, body: how })),
  printer: () => taken(client.GET("/api/printer")),
  setPrinter: (to: PrinterView) => taken(client.PUT("/api/printer", { body: to })),
  whatMatters: (picture: string) => taken(client.GET("/api/pictures/{id}/matters", { params: at(picture) })),
  listedPrints: (text: string, unit: string) => taken(client.POST("/api/photos/listed", { body: { text, unit } })),
  placedPhotos: (body: Schemas["PlacedPhotosAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/photos/placed", { body, ...(signal ? { signal } : {}) })),
  stash: (search: string, unit: string, from: number) =>
    taken(client.GET("/api/stash", { params: { query: { search, unit, from } } })),
  importStash: (file: Blob, key: string) =>
    taken(
      client.POST("/api/stash/table", {
        params: { header: once(key) },
        body: file as unknown as string,
        bodySerializer: (body) => body as unknown as Blob,
        headers: { "Content-Type": "text/csv" },
      }),
    ),
  readStash: (text: string, unit: string, signal?: AbortSignal) =>
    taken(client.POST("/api/stash/said", { body: { text, unit }, ...(signal ? { signal } : {}) })),
  putAway: (items: StashItemDoc[], own: boolean, key: string) =>
    taken(client.POST("/api/stash", { params: { header: { "Idempotency-Key": key } }, body: { items, own } })),
  changeStashItem: (id: string, revision: number, item: StashItemDoc, own?: boolean) =>
    taken(
      client.PUT("/api/stash/{id}", {
        params: at(id),
        body: { revision, item, ...(own === undefined ? {} : { own }) },
      }),
    ),
  lookBack: (signal?: AbortSignal) => taken(client.GET("/api/look-back", signal ? { signal } : {})),
  sketchOfPage: (page: string, asked: Schemas["SketchOfPage"], key: string) =>
    taken(client.POST("/api/pages/{id}/sketch", { params: { ...at(page), header: once(key) }, body: asked })),
  kitUse: (kit: string, signal?: AbortSignal) =>
    taken(client.GET("/api/stash/kit", { params: { query: { kit } }, ...(signal ? { signal } : {}) })),
  paperInPicture: (picture: string, shown: Schemas["PaperShown"]) =>
    taken(client.POST("/api/pictures/{id}/paper", { params: at(picture), body: shown })),
  unitTable: (body: Schemas["UnitsAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/papers/units", { body, ...(signal ? { signal } : {}) })),
  takeOutOfStash: (id: string) => done(client.DELETE("/api/stash/{id}", { params: at(id) })),
  papered: (body: Schemas["PaperedAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/papers/placed", { body, ...(signal ? { signal } : {}) })),
  logSeen: (id: string, signal?: AbortSignal) =>
    taken(client.GET("/api/pages/{id}/log", { params: at(id), ...(signal ? { signal } : {}) })),
  clustersLaid: (body: Schemas["ClustersAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/clusters/laid", { body, ...(signal ? { signal } : {}) })),
  clustersShared: (body: Schemas["ShareAskedDoc"]) => taken(client.POST("/api/clusters/shared", { body })),
  pageCuts: (body: Schemas["PageCutsAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/cut/planned", { body, ...(signal ? { signal } : {}) })),
  wordsSet: (body: Schemas["WordsAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/words/set", { body, ...(signal ? { signal } : {}) })),
  buildOrdered: (body: Schemas["BuildAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/build/ordered", { body, ...(signal ? { signal } : {}) })),
  dealtPapers: (body: Schemas["DealAskedDoc"]) => taken(client.POST("/api/papers/dealt", { body })),
  rankedPapers: (body: Schemas["RankingAskedDoc"], signal?: AbortSignal) =>
    taken(client.POST("/api/papers/ranked", { body, ...(signal ? { signal } : {}) })),
  deletePicture: (id: string) => done(client.DELETE("/api/pictures/{id}", { params: at(id) })),
  readPicture: (id: string, shown: PictureShown) =>
    taken(client.POST("/api/pictures/{id}/reading", { params: { ...at(id), query: shown } })),
  job: (id: string) => taken(client.GET("/api/jobs/{id}", { params: at(id) })),
  cancelJob: (id: string) => done(client.DELETE("/api/jobs/{id}", { params: at(id) })),
  liftPage: (id: string, shown: PictureShown) =>
    taken(client.POST("/api/pictures/{id}/lift", { params: at(id), body: shown })),
  /** Sides of a block as shares of the page, moved onto strong edges of the lifted page that are near. */
  snapToLift: (of: LiftedFrom, sides: [number, number, number, number]) =>
    "lift" in of
      ? taken(client.POST("/api/lifts/{id}/edges", { params: at(of.lift), body: { sides } }))
      : taken(client.POST("/api/pictures/{id}/edges", { params: at(of.picture), body: { sides } })),
  changeSketch: (id: string, change: Schemas["SketchChange"]) =>
    taken(client.PUT("/api/sketches/{id}", { params: at(id), body: change })),
  copySketch: (id: string, key: string, stands: { turn?: number; flip?: string } = {}) =>
    taken(client.POST("/api/sketches/{id}/copy", { params: { ...at(id), header: once(key), query: stands } })),
  pagesOfSketch: (id: string) => taken(client.GET("/api/sketches/{id}/pages", { params: at(id) })),

  pages: (shelf: "making" | "finished" | "archived") =>
    taken(client.GET("/api/pages", { params: { query: { shelf } } })),
  page: (id: string) => taken(client.GET("/api/pages/{id}", { params: at(id) })),
  startBack: (body: { sketch: string; name: string; back_of: string; see_through: string[] }, key: string) =>
    taken(client.POST("/api/pages", { body, params: { header: { "Idempotency-Key": key } } })),
  startPage: (sketch: string, name: string, key: string) =>
    taken(client.POST("/api/pages", { params: { header: once(key) }, body: { sketch, name } })),
  changePage: (id: string, change: PageChange) =>
    taken(client.PUT("/api/pages/{id}", { params: at(id), body: change })),
  copyPage: (id: string, key: string) =>
    taken(client.POST("/api/pages/{id}/copy", { params: { ...at(id), header: once(key) } })),
  changePlan: (id: string, change: PlanChange, key: string) =>
    taken(client.PATCH("/api/pages/{id}/plan", { params: { ...at(id), header: once(key) }, body: change })),
  undo: (id: string, step: PlanStep, key: string) =>
    taken(client.POST("/api/pages/{id}/undo", { params: { ...at(id), header: once(key) }, body: step })),
  redo: (id: string, step: PlanStep, key: string) =>
    taken(client.POST("/api/pages/{id}/redo", { params: { ...at(id), header: once(key) }, body: step })),
  returnTo: (id: string, step: PlanStep & { to: number }, key: string) =>
    taken(client.POST("/api/pages/{id}/return", { params: { ...at(id), header: once(key) }, body: step })),
  history: (id: string, before?: number) =>
    taken(
      client.GET("/api/pages/{id}/revisions", {
        params: { ...at(id), query: before === undefined ? {} : { before } },
      }),
    ),
  revision: (id: string, revision: number) =>
    taken(client.GET("/api/pages/{id}/revisions/{revision}", { params: { path: { id, revision } } })),
  pageCall: (id: string) => taken(client.GET("/api/pages/{id}/call", { params: at(id) })),
  season: () => taken(client.GET("/api/season", { params: { query: { zone: zoneHere() } } })),
  call: (id: string) => taken(client.GET("/api/calls/{id}", { params: at(id) })),
  addCall: (body: Schemas["NewCall"], key: string) =>
    taken(client.POST("/api/calls", { params: { header: once(key) }, body })) as Promise<CallView>,
  addCalls: (documents: CallDoc[], key: string) =>
    taken(client.POST("/api/calls/several", { params: { header: once(key) }, body: { documents } })),
  changeCall: (id: string, body: Schemas["CallChange"]) =>
    taken(client.PUT("/api/calls/{id}", { params: at(id), body })),
  callRevisions: (id: string) => taken(client.GET("/api/calls/{id}/revisions", { params: at(id) })),
  callRevision: (id: string, revision: number) =>
    taken(client.GET("/api/calls/{id}/revisions/{revision}", { params: { path: { id, revision } } })),
  takeCall: (id: string, page?: string) =>
    taken(client.POST("/api/calls/{id}/taking", { params: at(id), body: page ? { page } : {} })),
  giveCallBack: (id: string) => taken(client.DELETE("/api/calls/{id}/taking", { params: at(id) })),
  startForCall: (id: string, body: Schemas["PageForCall"], key: string) =>
    taken(client.POST("/api/calls/{id}/pages", { params: { ...at(id), header: once(key) }, body })),
  hop: (id: string) => taken(client.GET("/api/calls/{id}/hop", { params: at(id) })),
  writeHop: (id: string, revision: number, links: ChainLinkDoc[]) =>
    taken(client.PUT("/api/calls/{id}/hop", { params: at(id), body: { revision, links } })),
  readText: (text: string) => taken(client.POST("/api/calls/text", { body: { text, zone: zoneHere() } })),
  readCalendar: (file: Blob) =>
    taken(
      client.POST("/api/calls/calendar", {
        body: file as unknown as string,
        bodySerializer: (body) => body as unknown as Blob,
        headers: { "Content-Type": "text/calendar" },
      }),
    ),
  feed: () => taken(client.GET("/api/feed")),
  makeFeed: () => taken(client.POST("/api/feed")),
  dropFeed: () => done(client.DELETE("/api/feed")),
  versions: (id: string) => taken(client.GET("/api/pages/{id}/versions", { params: at(id) })),
  pageDetails: (id: string) => taken(client.GET("/api/pages/{id}/details", { params: at(id) })),
  nameVersion: (id: string, revision: number, name: string) =>
    done(client.POST("/api/pages/{id}/versions", { params: at(id), body: { revision, name } })),
  unnameVersion: (id: string, name: string) =>
    done(client.DELETE("/api/pages/{id}/versions", { params: { ...at(id), query: { name } } })),

  refit: (body: RefitDoc) => taken(client.POST("/api/fit/again", { body })),
  changeBlocks: (body: ChangeDoc) => taken(client.POST("/api/notation/change", { body })),
  fit: (body: FitDoc, signal?: AbortSignal) => taken(client.POST("/api/fit", { body, ...(signal ? { signal } : {}) })),
};

/** In which size a picture is wanted. */
export type PictureForm = "original" | "view" | "screen-960" | "screen-480" | "thumb";

/** Addresses of pictures' pixels. */
export const pictureFile = (id: string, form: PictureForm) => withTeam(`/api/pictures/${id}/${form}`);

/** The address of a page's pack. */
export const packFile = (page: string) => withTeam(`/api/pages/${page}/pack.zip`);

/** What a sketch was laid over: a lift, or a picture that was lifted before lifts had ids of their own. */
export type LiftedFrom = { lift: string } | { picture: string };

/** The address of a lifted page's pixels. */
export const liftedPage = (of: LiftedFrom) =>
  withTeam("lift" in of ? `/api/lifts/${of.lift}/page` : `/api/pictures/${of.picture}/straight`);

/** The address of what the printer printed of a sheet. */
export const printedSheet = (order: string, sheet: number) => withTeam(`/api/print-orders/${order}/sheets/${sheet}`);

const asQuery = (options: PrintOptions) =>
  new URLSearchParams(Object.entries(options).map(([name, value]) => [name, String(value)])).toString();

/** Addresses of what is taken away. */
export const takeAway = {
  layout: (id: string) => withTeam(`/api/pages/${id}/layout`),
  drawing: (id: string) => withTeam(`/api/pages/${id}/drawing.svg`),
  sheet: (id: string, paper: "letter" | "a4") => withTeam(`/api/pages/${id}/sheet.pdf?paper=${paper}`),
  sheetView: (id: string, paper: "letter" | "a4", sheet: number) =>
    withTeam(`/api/pages/${id}/sheet.svg?paper=${paper}&sheet=${sheet}`),
  printSheets: (id: string, options: PrintOptions) => withTeam(`/api/pages/${id}/prints.pdf?${asQuery(options)}`),
  printSheet: (id: string, sheet: number, options: PrintOptions) =>
    withTeam(`/api/pages/${id}/prints/${sheet}?${asQuery(options)}`),
  writing: (id: string) => withTeam(`/api/pages/${id}/writing.pdf`),
  steps: (id: string) => withTeam(`/api/pages/${id}/steps.pdf`),
  cutSheets: (id: string) => withTeam(`/api/pages/${id}/cut.pdf`),
  forMachine: (id: string) => withTeam(`/api/pages/${id}/cut.svg`),
  sketch: (id: string) => withTeam(`/api/sketches/${id}/document`),
  sketches: () => withTeam("/api/sketches/export"),
  stash: () => withTeam("/api/stash/table"),
  team: () => withTeam("/api/team/export"),
};
