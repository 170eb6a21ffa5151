import { useId, useRef, useState } from "react";
import type { Coming } from "./intake";

type Props = {
  coming: readonly Coming[];
  onFiles: (files: readonly File[]) => void;
  onDrop: (key: string) => void;
  /** What became of those that arrived, where there is something to say. */
  said: readonly string[];
};

/** The button that brings pictures in, many at once. */
export function BringInButton({ onFiles }: { onFiles: (files: readonly File[]) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="sr-only">
        Pictures to bring in
      </label>
      <input
        ref={field}
        id={id}
        type="file"
        multiple
        accept="image/png,image/jpeg,image/webp"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
      <button type="button" className="button button-first" onClick={() => field.current?.click()}>
        Bring in pictures
      </button>
    </>
  );
}

/** Pictures on their way in, each with how far it is. */
export function ComingIn({ coming, onDrop, said }: Omit<Props, "onFiles">) {
  if (coming.length === 0 && said.length === 0) return null;
  const going = coming.filter((c) => c.state !== "refused").length;
  return (
    <section aria-label="Pictures on their way in" className="grid gap-1.5">
      {going > 0 && (
        <p className="text-second" role="status">
          {going === 1 ? "One picture is" : `${going} pictures are`} on the way in. You can go on working; they go on
          after a reload too.
        </p>
      )}
      <ul className="grid max-h-[168px] gap-1 overflow-y-auto">
        {coming.map((c) => (
          <li key={c.key} className="flex flex-wrap items-center gap-2">
            <span className="min-w-0 flex-1 truncate">{c.name}</span>
            {c.state === "refused" ? (
              <span className="basis-full text-measure">{c.why}</span>
            ) : (
              <>
                <progress className="h-2 w-[90px] accent-ink" max={1} value={c.share} aria-label={`${c.name}, sent`} />
                <span className="w-[120px] text-second text-[13px]">{stateWord(c)}</span>
              </>
            )}
            <button type="button" className="button px-1.5 py-0" onClick={() => onDrop(c.key)}>
              {c.state === "refused" ? "Take off the list" : "Stop"}
              <span className="sr-only"> {c.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {said.map((s) => (
        <p key={s} className="text-second">
          {s}
        </p>
      ))}
    </section>
  );
}

const stateWord = (c: Coming) =>
  c.state === "waiting" ? "waits" : c.state === "offline" ? "waits for the server" : `${Math.round(c.share * 100)} %`;

/** Whether files are held over something, and what makes it take them. */
export function useFilesOver(onFiles: (files: readonly File[]) => void) {
  const [over, setOver] = useState(false);
  const isFiles = (e: React.DragEvent) => e.dataTransfer.types.includes("Files");
  return {
    over,
    zone: {
      onDragOver: (e: React.DragEvent) => {
        if (!isFiles(e)) return;
        e.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (e: React.DragEvent) => {
        if (!isFiles(e)) return;
        e.preventDefault();
        setOver(false);
        onFiles([...e.dataTransfer.files]);
      },
    },
  };
}
