import { type QueryKey, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { keepStream, onTold, type Told } from "./stream";

/** Several things that happen at once are looked at once. */
const TOGETHER = 150;

/** Which lists are another now. What is open in an editor looks after itself. */
export function outdated(told: Told): QueryKey[] {
  if (told.kind === "again")
    return [["pages"], ["sketches"], ["history"], ["versions"], ["pictures"], ["season"], ["calls"], ["stash"]];
  const { what, thing } = told.event;
  switch (what) {
    case "page":
      return [["pages"], ["season"], ["calls"], ["history", thing]];
    case "call":
      return [["season"], ["calls", thing], ["pages"]];
    case "details":
      return [["pages"], ["season"]];
    case "layout":
      return [["pages"]];
    case "stash":
      return [["stash"], ["ranked-papers"]];
    case "sketch":
      return [["sketches"], ["sketch-revisions", thing]];
    default:
      return [];
  }
}

/** Keeps what is on screen true to what others do in the team. */
export function useEvents(team: string | undefined) {
  const queries = useQueryClient();
  useEffect(() => {
    if (!team) return;
    const waiting = new Map<string, QueryKey>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const refresh = () => {
      timer = undefined;
      for (const queryKey of waiting.values()) queries.invalidateQueries({ queryKey });
      waiting.clear();
    };
    const deaf = onTold((told) => {
      for (const key of outdated(told)) waiting.set(JSON.stringify(key), key);
      if (waiting.size > 0) timer ??= setTimeout(refresh, TOGETHER);
    });
    const end = keepStream(team);
    return () => {
      deaf();
      end();
      clearTimeout(timer);
    };
  }, [queries, team]);
}
