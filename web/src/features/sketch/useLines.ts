import { useEffect, useRef, useState } from "react";
import { api, type ReadingView, type SketchDoc, type WordErrorView } from "@/api/client";

/** Lines are read this long after the last key. */
const QUIET = 200;

export type Lines = {
  text: string;
  type: (text: string) => void;
  errors: readonly WordErrorView[];
  reading: ReadingView | undefined;
  /** The sketch of those lines that are understood, while not all are. */
  preview: SketchDoc | undefined;
  /** Why the lines could not be read or written at all. */
  failure: string | undefined;
};

/** A sketch as lines by number: what is typed becomes the sketch as soon as all of it is understood, and what is changed
 * elsewhere is written down again. */
export function useLines(sketch: SketchDoc, onChange: (sketch: SketchDoc, reason: string) => void): Lines {
  const [text, setText] = useState("");
  const [errors, setErrors] = useState<readonly WordErrorView[]>([]);
  const [reading, setReading] = useState<ReadingView>();
  const [preview, setPreview] = useState<SketchDoc>();
  const [failure, setFailure] = useState<string>();
  // The document that the lines on screen stand for.
  const written = useRef<SketchDoc>(undefined);
  const typed = useRef<string>(undefined);
  const latest = useRef({ sketch, onChange });
  latest.current = { sketch, onChange };

  useEffect(() => {
    if (written.current === sketch) return;
    let current = true;
    api.lines(sketch).then(
      (found) => {
        if (!current) return;
        written.current = sketch;
        typed.current = undefined;
        setText(found.text);
        setErrors([]);
        setPreview(undefined);
        setReading(found.reading);
        setFailure(undefined);
      },
      (error: Error) => current && setFailure(error.message),
    );
    return () => {
      current = false;
    };
  }, [sketch]);

  useEffect(() => {
    if (typed.current === undefined || typed.current !== text) return;
    const timer = setTimeout(() => {
      api.numbers(text, latest.current.sketch).then(
        (found) => {
          if (typed.current !== text) return;
          setErrors(found.errors);
          setPreview(found.preview ?? undefined);
          setFailure(undefined);
          if (!found.document) return;
          setReading(found.reading ?? undefined);
          written.current = found.document;
          latest.current.onChange(found.document, "typed by number");
        },
        (error: Error) => setFailure(error.message),
      );
    }, QUIET);
    return () => clearTimeout(timer);
  }, [text]);

  const type = (next: string) => {
    typed.current = next;
    setText(next);
  };
  return { text, type, errors, reading, preview, failure };
}
