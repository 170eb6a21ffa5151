import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, type BroughtView, type CallDoc, type PastedView } from "@/api/client";
import { useOnce } from "@/shared/query/useOnce";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { useRefreshCalls } from "./useSeason";
import { longDay, repeatText } from "./words";

/** A message or a rule page that was pasted: what is understood of it is looked over before it becomes a call. */
export function PasteText({ onRead, onClose }: { onRead: (read: PastedView) => void; onClose: () => void }) {
  const [text, setText] = useState("");
  const read = useMutation({ mutationFn: api.readText, onSuccess: onRead });
  return (
    <Sheet
      title="Paste what was asked"
      about="A message, a post, a page of rules. Days, what must appear, credits and links are found in it; you look it over before it is kept."
      width="wide"
      onClose={onClose}
    >
      <form
        className="mt-3 grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          read.mutate(text);
        }}
      >
        <label className="grid gap-1">
          <span className="font-medium">The text</span>
          <textarea className="field px-2 py-1.5" rows={10} value={text} onChange={(e) => setText(e.target.value)} />
        </label>
        {read.error && (
          <p role="alert" className="text-measure">
            {read.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <CloseSheet>Cancel</CloseSheet>
          <button type="submit" className="button button-first" disabled={read.isPending || text.trim() === ""}>
            Find what is asked
          </button>
        </div>
      </form>
    </Sheet>
  );
}

/** A calendar file: its events as calls, those that are wanted ticked. */
export function BringCalendar({ onClose }: { onClose: () => void }) {
  const file = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<BroughtView[]>();
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const refresh = useRefreshCalls();
  const read = useMutation({
    mutationFn: api.readCalendar,
    onSuccess: (all) => {
      setFound(all);
      setLeft(new Set(all.flatMap((b, n) => (b.comes ? [] : [n]))));
    },
  });
  const keep = useOnce(
    (documents: CallDoc[], key) => api.addCalls(documents, key),
    () => {
      refresh();
      onClose();
    },
  );
  const wanted = (found ?? []).filter((_, n) => !left.has(n)).map((b) => b.document);
  const toggle = (n: number) =>
    setLeft((old) => {
      const next = new Set(old);
      if (!next.delete(n)) next.add(n);
      return next;
    });
  const error = read.error ?? keep.error;
  return (
    <Sheet
      title="Bring in a calendar"
      about="The events of a calendar file (.ics) become calls. Nothing is kept before you have looked them over."
      width="wide"
      onClose={onClose}
    >
      <div className="mt-3 grid gap-3">
        <input
          ref={file}
          type="file"
          accept=".ics,text/calendar"
          aria-label="Calendar file"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            if (chosen) read.mutate(chosen);
          }}
        />
        {error && (
          <p role="alert" className="text-measure">
            {error.message}
          </p>
        )}
        {found && (
          <ul className="max-h-[50dvh] overflow-y-auto">
            {found.map((b, n) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: an event is known by its place in the file
              <li key={n} className="border-hairline border-t py-1.5">
                <label className="flex items-baseline gap-2.5">
                  <input type="checkbox" checked={!left.has(n)} disabled={!b.comes} onChange={() => toggle(n)} />
                  <span className="font-semibold">{b.document.name}</span>
                  <span className="text-second">
                    {b.document.due ? longDay(b.document.due) : "no day"}
                    {b.document.repeats && b.document.due ? `, ${repeatText(b.document.repeats, b.document.due)}` : ""}
                    {b.notes.length > 0 && `: ${b.notes.join("; ")}`}
                  </span>
                </label>
              </li>
            ))}
          </ul>
        )}
        <div className="flex justify-end gap-2">
          <CloseSheet>Cancel</CloseSheet>
          <button
            type="button"
            className="button button-first"
            disabled={wanted.length === 0 || keep.isPending}
            onClick={() => keep.mutate(wanted)}
          >
            {wanted.length === 1 ? "Keep this call" : `Keep these ${wanted.length} calls`}
          </button>
        </div>
      </div>
    </Sheet>
  );
}
