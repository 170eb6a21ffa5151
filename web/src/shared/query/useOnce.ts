import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { ApiError, newKey } from "@/api/client";

/** What tells one thing to send from another. */
const markOf = (given: unknown) =>
  JSON.stringify(given, (_, value) => (value instanceof File ? [value.name, value.size, value.lastModified] : value));

/** A write that acts once: a second click while it runs does nothing, and a try after an answer that got lost goes out under the first
 * one's key. */
export function useOnce<Given, Done>(
  write: (given: Given, key: string) => Promise<Done>,
  onDone?: (done: Done, given: Given) => void,
) {
  const running = useRef(false);
  const tried = useRef<{ mark: string; key: string }>(undefined);
  const mutation = useMutation({
    mutationFn: async (given: Given) => {
      const mark = markOf(given) ?? "";
      if (tried.current?.mark !== mark) tried.current = { mark, key: newKey() };
      const { key } = tried.current;
      try {
        const done = await write(given, key);
        tried.current = undefined;
        return done;
      } catch (error) {
        // A refusal is an answer: the next try is another write.
        if (error instanceof ApiError && error.problem.status < 500) tried.current = undefined;
        throw error;
      }
    },
    ...(onDone && { onSuccess: onDone }),
  });
  const mutate = (given: Given) => {
    if (running.current) return;
    running.current = true;
    mutation.mutate(given, {
      onSettled: () => {
        running.current = false;
      },
    });
  };
  return { ...mutation, mutate };
}
