import { type ComponentType, lazy } from "react";
import type { StationProps } from "@/features/plan/stationProps";

export type StationName =
  | "call"
  | "sketch"
  | "photos"
  | "fit"
  | "papers"
  | "cut"
  | "words"
  | "clusters"
  | "build"
  | "log";

export type Station = {
  name: StationName;
  label: string;
  /** What is decided there. */
  decides: string;
  /** Its screen, fetched when it is first opened. */
  screen: ComponentType<StationProps>;
};

/** The ten stations in the order of work. A new one is a folder of its own, and a screen here. */
export const STATIONS: readonly Station[] = [
  {
    name: "call",
    label: "Call",
    decides: "What is asked, by when, what counts, and whom to credit.",
    screen: lazy(async () => ({ default: (await import("@/features/call/CallStation")).CallStation })),
  },
  {
    name: "sketch",
    label: "Sketch",
    decides: "Which sketch, and what its lines and neighbours mean.",
    screen: lazy(async () => ({ default: (await import("@/features/sketch/SketchStation")).SketchStation })),
  },
  {
    name: "photos",
    label: "Photos",
    decides: "Which prints, how large, which way up, and what must not be cut off.",
    screen: lazy(async () => ({ default: (await import("@/features/photos/PhotosStation")).PhotosStation })),
  },
  {
    name: "fit",
    label: "Fit",
    decides: "The page, one or two, how many photos, and where everything goes.",
    screen: lazy(async () => ({ default: (await import("@/features/fit/FitStation")).FitStation })),
  },
  {
    name: "papers",
    label: "Papers",
    decides: "Which sheet and side for each piece, the mats, tucks and layers.",
    screen: lazy(async () => ({ default: (await import("@/features/papers/PapersStation")).PapersStation })),
  },
  {
    name: "cut",
    label: "Cut",
    decides: "What is cut from which sheet, in what order, at which trimmer setting.",
    screen: lazy(async () => ({ default: (await import("@/features/cut/CutStation")).CutStation })),
  },
  {
    name: "words",
    label: "Words",
    decides: "The title in a letter set that fits, and the journaling.",
    screen: lazy(async () => ({ default: (await import("@/features/words/WordsStation")).WordsStation })),
  },
  {
    name: "clusters",
    label: "Clusters",
    decides: "Where the clusters sit, how large, and what an experienced eye would see before the glue.",
    screen: lazy(async () => ({ default: (await import("@/features/clusters/ClustersStation")).ClustersStation })),
  },
  {
    name: "build",
    label: "Build",
    decides: "The order of making, the drying, and the points of no return.",
    screen: lazy(async () => ({ default: (await import("@/features/build/BuildStation")).BuildStation })),
  },
  {
    name: "log",
    label: "Log",
    decides: "What was done, what is left over, and the pack to publish.",
    screen: lazy(async () => ({ default: (await import("@/features/log/LogStation")).LogStation })),
  },
];

/** The station of that name. */
export const stationOf = (name: string) => STATIONS.find((s) => s.name === name);
