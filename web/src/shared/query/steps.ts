// What was changed step by step, to be undone and done again.

import { useCallback, useReducer } from "react";

type Steps<T> = { past: readonly T[]; now: T; future: readonly T[] };
type Event<T> = { type: "changed"; to: T } | { type: "begun"; with: T } | { type: "undo" } | { type: "redo" };

export function stepped<T>(steps: Steps<T>, event: Event<T>): Steps<T> {
  if (event.type === "begun") return { past: [], now: event.with, future: [] };
  if (event.type === "changed") {
    return Object.is(event.to, steps.now) ? steps : { past: [...steps.past, steps.now], now: event.to, future: [] };
  }
  const [from, to] = event.type === "undo" ? [steps.past, steps.future] : [steps.future, steps.past];
  if (from.length === 0) return steps;
  const left = from.slice(0, -1);
  const right = [...to, steps.now];
  const next = from[from.length - 1] as T;
  return event.type === "undo" ? { past: left, now: next, future: right } : { past: right, now: next, future: left };
}

/** A value whose changes can be undone. The same value again is no change. */
export function useSteps<T>(start: T) {
  const [steps, dispatch] = useReducer(stepped<T>, { past: [], now: start, future: [] });
  const change = useCallback((to: T) => dispatch({ type: "changed", to }), []);
  const begin = useCallback((value: T) => dispatch({ type: "begun", with: value }), []);
  const undo = useCallback(() => dispatch({ type: "undo" }), []);
  const redo = useCallback(() => dispatch({ type: "redo" }), []);
  return { ...steps, change, begin, undo, redo };
}
