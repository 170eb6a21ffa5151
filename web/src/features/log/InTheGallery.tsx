import { useState } from "react";
import type { EntryView } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { useGallery } from "./useGallery";

type Props = {
  page: string;
  /** The call that the page answers. */
  call: string | undefined;
  hasPicture: boolean;
  /** What the pack still lacks. */
  missing: readonly string[];
  /** What stays out of it, in words. */
  out: readonly string[];
  saved: boolean;
  mayChange: boolean;
};

/** The finished page in the gallery: looked over, entered, and at any time how the entry stands. */
export function InTheGallery({ page, call, hasPicture, missing, out, saved, mayChange }: Props) {
  const [isLooking, setLooking] = useState(false);
  const gallery = useGallery(page, () => setLooking(false));
  const entries = gallery.entries.data ?? [];
  const hanging = entries.find((e) => e.state === "entered");
  const isUnderWay = entries.some((e) => e.under_way);
  return (
    <section aria-labelledby="gallery" className="grid gap-2">
      <h2 id="gallery" className="text-[17px]">
        The gallery
      </h2>
      {gallery.entries.isError && <Failed error={gallery.entries.error} onRetry={() => gallery.entries.refetch()} />}
      {entries.length > 0 && (
        <ol className="grid gap-2">
          {entries.map((entry) => (
            <Entry
              key={entry.id}
              entry={entry}
              onAskAgain={mayChange ? () => gallery.askAgain.mutate(entry.id) : undefined}
              onWithdraw={mayChange ? () => gallery.withdraw.mutate(entry.id) : undefined}
            />
          ))}
        </ol>
      )}
      {gallery.askAgain.error && <Failed error={gallery.askAgain.error} />}
      {gallery.withdraw.error && <Failed error={gallery.withdraw.error} />}
      {mayChange && !isLooking && (
        <button
          type="button"
          className="button justify-self-start"
          disabled={!hasPicture || !saved || isUnderWay}
          onClick={() => setLooking(true)}
        >
          {hanging ? "Replace the entry…" : "Enter this page…"}
        </button>
      )}
      {!hasPicture && <p className="text-[13px] text-second">It takes a picture of the finished page.</p>}
      {isLooking && (
        <div className="grid gap-2 border border-hairline bg-sheet p-2.5 text-[14px]">
          <h3>Before it leaves</h3>
          <p>
            {call ? `It is entered for “${call}”.` : "It answers no call: it is hung without one."} The pictures, the
            story, the credits and what it is made of go along, as “See the pack” shows them.
          </p>
          <p>
            {out.length > 0 ? `Left out: ${out.join(", ")}.` : "Nothing is left out: names, place and date go along."}
          </p>
          {missing.length > 0 && <p className="text-measure">Still missing: {missing.join(", ")}.</p>}
          <p>Faces in the pictures are seen by everybody: blur those that are not to be, at the picture.</p>
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="button button-first"
              disabled={gallery.enter.isPending}
              onClick={() => gallery.enter.mutate(hanging?.id)}
            >
              {hanging ? "Replace the entry" : "Enter it in the gallery"}
            </button>
            <button type="button" className="button" onClick={() => setLooking(false)}>
              Not yet
            </button>
          </div>
          {gallery.enter.error && <Failed error={gallery.enter.error} />}
        </div>
      )}
      {mayChange && gallery.gallery.data && (
        <details className="text-[13px]">
          <summary>How the gallery is today (a simulated one)</summary>
          <label className="mt-1 flex items-center gap-2">
            It
            <select
              className="field py-0.5"
              value={gallery.gallery.data.mood}
              onChange={(e) => gallery.setMood.mutate({ mood: e.target.value })}
            >
              {Object.entries(MOODS).map(([mood, said]) => (
                <option key={mood} value={mood}>
                  {said}
                </option>
              ))}
            </select>
          </label>
          <p className="mt-1">
            {gallery.gallery.data.wall.length === 0
              ? "Nothing hangs there."
              : `There hang: ${gallery.gallery.data.wall.map((w) => `${w.title} by ${w.maker}`).join("; ")}.`}
          </p>
        </details>
      )}
    </section>
  );
}

const MOODS: Record<string, string> = {
  well: "takes entries",
  slow: "is slow",
  refuses: "takes nothing today",
  gone: "does not answer",
  vanishes: "vanishes after taking an entry",
  rubbish: "answers what nobody understands",
};

const STANDS: Record<string, string> = {
  sent: "On its way",
  open: "Open: nobody knows whether the gallery has it",
  entered: "Entered",
  refused: "Not taken",
  withdrawing: "To be taken down",
  withdrawn: "Taken down",
};

function Entry({
  entry,
  onAskAgain,
  onWithdraw,
}: {
  entry: EntryView;
  onAskAgain: (() => void) | undefined;
  onWithdraw: (() => void) | undefined;
}) {
  const when = new Date(entry.made_at).toLocaleString("en", {
    month: "short",
    day: "numeric",
    hour: "numeric",
    minute: "2-digit",
  });
  const maybe =
    !entry.under_way && (entry.state === "open" || entry.state === "refused" || entry.state === "withdrawing");
  return (
    <li className="grid gap-1 border-hairline border-t pt-1.5 text-[14px]">
      <p role="status">
        <strong>{STANDS[entry.state] ?? entry.state}</strong>
        {entry.state === "entered" && entry.address && ` as ${entry.address}`}
        {entry.under_way && entry.progress && ` (${entry.progress})`}
        <span className="text-second">
          , sent by {entry.asked_by}, {when}
        </span>
      </p>
      {entry.why && (entry.state === "open" || entry.state === "refused" || entry.state === "withdrawing") && (
        <p className="text-measure">{sentence(entry.why)}</p>
      )}
      <div className="flex gap-2">
        {maybe && onAskAgain && (
          <button type="button" className="button px-2 py-0.5" onClick={onAskAgain}>
            {entry.state === "refused" ? "Send it again" : "Ask again"}
          </button>
        )}
        {(entry.state === "entered" || entry.state === "open") && !entry.under_way && onWithdraw && (
          <button type="button" className="button px-2 py-0.5" onClick={onWithdraw}>
            Take it down
          </button>
        )}
      </div>
    </li>
  );
}

const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}${text.endsWith(".") ? "" : "."}`;
