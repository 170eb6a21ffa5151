// What dries: clocks that run beside other work, kept on this device so that a reload or an hour without a connection loses none.

import { useCallback, useEffect, useState } from "react";
import type { BuildStepDoc, PlanDoc } from "@/api/client";
import { isDone } from "./model";

/** When each step's drying began, by the step's id, in milliseconds. */
export type Clocks = Readonly<Record<string, number>>;

const MINUTE = 60_000;
const SECOND = 1_000;

const keyOf = (page: string) => `metrosk.drying.${page}`;

function kept(page: string): Clocks {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(keyOf(page)) ?? "{}");
    const clocks = Object.entries(read ?? {}).filter(([, at]) => typeof at === "number");
    return Object.fromEntries(clocks) as Clocks;
  } catch {
    return {};
  }
}

/** Milliseconds until a step is dry; none or less when it is. */
export const left = (step: BuildStepDoc, began: number, now: number) => began + step.dries * MINUTE - now;

/** `12:05`, `1:02:00` */
export function clockText(milliseconds: number): string {
  const seconds = Math.max(0, Math.ceil(milliseconds / SECOND));
  const [hours, minutes, rest] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
  const two = (n: number) => String(n).padStart(2, "0");
  return hours > 0 ? `${hours}:${two(minutes)}:${two(rest)}` : `${minutes}:${two(rest)}`;
}

/** Steps that can be done now: what they need is done, and what has to be dry is dry as far as a clock tells. */
export function readyNow(plan: PlanDoc, steps: readonly BuildStepDoc[], clocks: Clocks, now: number): BuildStepDoc[] {
  const byId = new Map(steps.map((s) => [s.id, s]));
  return steps.filter((step) => {
    if (isDone(plan, step.id)) return false;
    return step.after.every((reason) => {
      if (!isDone(plan, reason.step)) return false;
      const [before, began] = [byId.get(reason.step), clocks[reason.step]];
      return reason.lag === 0 || !before || began === undefined || left(before, began, now) <= 0;
    });
  });
}

/** The clocks of a page, and the time, which goes on while one of them runs. */
export function useDrying(page: string) {
  const [clocks, setClocks] = useState(() => kept(page));
  const [now, setNow] = useState(Date.now);
  const isRunning = Object.keys(clocks).length > 0;
  useEffect(() => {
    if (!isRunning) return;
    const timer = setInterval(() => setNow(Date.now()), SECOND);
    return () => clearInterval(timer);
  }, [isRunning]);
  const keep = useCallback(
    (change: (clocks: Clocks) => Clocks) => {
      setNow(Date.now());
      setClocks((before) => {
        const next = change(before);
        localStorage.setItem(keyOf(page), JSON.stringify(next));
        return next;
      });
    },
    [page],
  );
  const start = useCallback((step: string) => keep((c) => ({ ...c, [step]: Date.now() })), [keep]);
  const stop = useCallback((step: string) => keep(({ [step]: _, ...others }) => others), [keep]);
  return { clocks, now, start, stop };
}
