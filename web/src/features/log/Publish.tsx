import { useId, useState } from "react";
import { type LogSeenDoc, type PlanDoc, packFile } from "@/api/client";
import { leftOut, PRIVATE } from "./model";

type Props = {
  page: string;
  plan: PlanDoc;
  seen: LogSeenDoc;
  saved: boolean;
  mayChange: boolean;
  onStory: (story: string) => void;
  onLink: (link: string) => void;
  onLeaveOut: (what: string, out: boolean) => void;
};

/** The pack to publish: what is in it, what is lacking, what stays out, and a look before anything leaves. */
export function Publish({ page, plan, seen, saved, mayChange, onStory, onLink, onLeaveOut }: Props) {
  const { pack } = seen;
  const [open, setOpen] = useState(false);
  const lacks = pack.missing.length;
  const words = pack.story.split(/\s+/).filter(Boolean).length;
  const there: readonly (readonly [string, string, boolean])[] = [
    ["Story", `${words} words`, words > 0],
    ["What it’s made of", `${pack.supplies.length} lines`, pack.supplies.length > 0],
    ["Measures", "what shows, what to cut", pack.measures > 0],
    ["Sketch and steps", `${pack.steps} steps`, pack.steps > 0],
    ["Credits", pack.credits.join(" "), pack.credits.length > 0],
  ];
  return (
    <section aria-labelledby="pack" className="grid gap-2">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 id="pack" className="text-[17px]">
          The pack to publish
        </h2>
        <span className={lacks > 0 ? "text-[14px] text-measure" : "text-[14px] text-done"}>
          {lacks === 0 ? "nothing is missing" : lacks === 1 ? "one thing missing" : `${lacks} things missing`}
        </span>
      </div>
      <ul className="text-[15px]">
        {pack.missing.map((what) => (
          <li key={what} className="flex gap-2 border-hairline border-t py-1">
            <span aria-hidden className="text-measure">
              ○
            </span>
            <strong>Missing: {what}</strong>
          </li>
        ))}
        {there
          .filter(([, , is]) => is)
          .map(([name, what]) => (
            <li key={name} className="flex justify-between gap-3 border-hairline border-t py-1">
              <span className="flex gap-2">
                <span aria-hidden className="text-done">
                  ✓
                </span>
                {name}
              </span>
              <span className="text-right text-second">{what}</span>
            </li>
          ))}
      </ul>
      <Typed
        label="The story, where it differs from your writing"
        text={plan.log?.story ?? ""}
        rows={4}
        mayChange={mayChange}
        onCommit={onStory}
      />
      <Typed
        label="Link to the next maker’s page"
        text={plan.log?.link ?? ""}
        mayChange={mayChange}
        check={(text) =>
          text === "" || /^https?:\/\/\S+$/.test(text)
            ? undefined
            : `“${text}” is no address; it begins with https:// and has no spaces`
        }
        onCommit={onLink}
      />
      <fieldset className="flex flex-wrap gap-x-4 gap-y-1 text-[14px]" disabled={!mayChange}>
        <legend className="mb-1">Left out of all that is published:</legend>
        {PRIVATE.map(([what, said]) => (
          <label key={what} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={leftOut(plan).includes(what)}
              onChange={(e) => onLeaveOut(what, e.target.checked)}
            />
            {said}
          </label>
        ))}
      </fieldset>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Close the pack" : "See the pack"}
        </button>
        {saved ? (
          <a className="button" href={packFile(page)} download>
            Take it as a zip
          </a>
        ) : (
          <span className="text-[13px] text-second">The zip is ready once all is saved.</span>
        )}
      </div>
      {open && (
        <pre className="max-h-[26rem] overflow-auto whitespace-pre-wrap border border-hairline bg-sheet p-2.5 font-sans text-[13px]">
          {pack.text}
        </pre>
      )}
    </section>
  );
}

type TypedProps = {
  label: string;
  text: string;
  rows?: number;
  mayChange: boolean;
  check?: (text: string) => string | undefined;
  onCommit: (text: string) => void;
};

/** A text that is kept when she leaves it; one that can't be meant is said to be, and stays in the field. */
function Typed({ label, text, rows = 1, mayChange, check, onCommit }: TypedProps) {
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<string>();
  const id = useId();
  return (
    <div className="grid gap-0.5 text-[14px]">
      <label htmlFor={id}>{label}</label>
      <textarea
        id={id}
        rows={rows}
        className="field w-full px-2 py-1"
        readOnly={!mayChange}
        value={typed ?? text}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          if (typed === undefined || typed === text) return;
          const problem = check?.(typed.trim());
          setWrong(problem);
          if (problem) return;
          onCommit(typed.trim());
          setTyped(undefined);
        }}
      />
      {wrong && (
        <p role="alert" className="text-measure">
          {wrong}
        </p>
      )}
    </div>
  );
}
