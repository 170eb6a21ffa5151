import { useBlocker } from "@tanstack/react-router";
import { useCallback, useEffect, useRef, useState } from "react";
import { useMe } from "@/features/people/useMe";
import { Confirm } from "@/shared/ui/Confirm";
import { dropDraft, findDraft, holdThing, type Kept, keepDraft } from "./drafts";

/** A draft is kept this long after the last change. */
const QUIET = 250;

type Unsaved<T> = {
  /** Whether the browser has been asked for what an earlier visit left. */
  looked: boolean;
  /** What an earlier visit left unsaved. */
  found: Kept<T> | undefined;
  /** What was found has been taken up or thrown away. */
  settle: () => void;
  /** It is saved now, or given up: nothing is kept any more, and leaving asks nothing. */
  letGo: () => void;
  /** Whether the browser had no room to keep it. */
  unkept: boolean;
  /** Asks before she leaves with something unsaved. */
  question: React.ReactNode;
};

/** Keeps what is not saved yet as a draft of this browser, and asks before she leaves it. `value` is undefined while all is saved. */
export function useUnsaved<T>(thing: string, name: string, value: T | undefined): Unsaved<T> {
  const person = useMe().data?.id ?? "";
  const [found, setFound] = useState<Kept<T>>();
  const [looked, setLooked] = useState(false);
  const [unkept, setUnkept] = useState(false);
  const free = useRef(false);
  const latest = useRef(value);
  latest.current = value;

  useEffect(() => holdThing(thing), [thing]);
  useEffect(() => {
    let current = true;
    findDraft<T>(person, thing).then((draft) => {
      if (!current) return;
      setFound(draft);
      setLooked(true);
    });
    return () => {
      current = false;
    };
  }, [person, thing]);

  useEffect(() => {
    // What an earlier visit left is not written over before she has decided about it.
    if (!looked || found || free.current) return;
    if (value === undefined) {
      dropDraft(person, thing);
      return;
    }
    const timer = setTimeout(() => {
      keepDraft(person, thing, name, value).then((room) => setUnkept(!room));
    }, QUIET);
    return () => clearTimeout(timer);
  }, [looked, found, person, thing, name, value]);

  const isUnsaved = useCallback(() => latest.current !== undefined && !free.current, []);
  const blocker = useBlocker({ shouldBlockFn: isUnsaved, enableBeforeUnload: isUnsaved, withResolver: true });
  const letGo = useCallback(() => {
    free.current = true;
    dropDraft(person, thing);
  }, [person, thing]);
  // What was saved may be changed again.
  useEffect(() => {
    if (value === undefined) free.current = false;
  }, [value]);

  const question = (
    <Confirm
      open={blocker.status === "blocked"}
      title="Leave without saving?"
      text="What you drew is kept in this browser, and offered again when you come back here."
      yes="Leave"
      no="Stay"
      onYes={() => blocker.proceed?.()}
      onClose={() => blocker.reset?.()}
    />
  );
  const settle = useCallback(() => setFound(undefined), []);
  return { looked, found, settle, letGo, unkept, question };
}
