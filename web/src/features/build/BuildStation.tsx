import { useMemo, useState } from "react";
import { type BuildStepDoc, type BuiltDoc, type FitDoc, type LayoutDoc, type PlanDoc, takeAway } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { tagPlaces } from "@/features/fit/tagPlaces";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { stepEntry, withEntry, withoutEntry } from "@/features/log/model";
import { useMayChange } from "@/features/people/useMe";
import { fitOf } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { BlockNumbers, byNumber } from "@/shared/drawing/BlockNumbers";
import { type Numbered, numbered } from "@/shared/drawing/geometry";
import { NumberTag, PageSheet } from "@/shared/drawing/PageSheet";
import { Rulers } from "@/shared/drawing/Rulers";
import { ROOM, RULER, usePageScale } from "@/shared/drawing/usePageScale";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { Workbench } from "@/shared/ui/Workbench";
import { Drying } from "./Drying";
import { useDrying } from "./drying";
import {
  isDone,
  nextStep,
  timeText,
  withDone,
  within,
  withMoved,
  withoutOrder,
  withSchool,
  withTechnique,
} from "./model";
import { StepInHand } from "./StepInHand";
import { TimeTape } from "./TimeTape";
import { useBuilt } from "./useBuilt";

/** An evening's work, in minutes. */
const TONIGHT = 120;

/** The order of making: steps along their time, why each stands where it does, and what can't be taken back. */
export function BuildStation({ page, plan, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const outcome = useBuilt(plan, way?.layout);
  const steps = outcome.data?.steps ?? [];
  const [pointed, setPointed] = useState<string>();
  const drying = useDrying(page.id);
  const step = steps.find((s) => s.id === pointed) ?? nextStep(plan, steps) ?? steps.at(-1);
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const change = (next: PlanDoc | undefined, reason: string) => {
    if (mayChange && next) changePlan(next, reason);
  };
  const named = (id: string) => {
    const at = steps.findIndex((s) => s.id === id);
    return `${at + 1}. ${steps[at]?.text ?? id}`;
  };
  const tick = (s: BuildStepDoc, done: boolean) => {
    setPointed(undefined);
    const ticked = withDone(plan, s.id, done);
    const entry = stepEntry(s.id, byNumber(s.text, new Map(names)), new Date());
    const logged = done ? withEntry(ticked, entry) : withoutEntry(ticked, entry.id);
    if (done && s.dries > 0) drying.start(s.id);
    if (!done) drying.stop(s.id);
    change(logged, done ? `step done: ${s.id}` : `step taken back: ${s.id}`);
  };
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[240, 372]}
        card={{ name: "How I work", content: <HowIWork plan={plan} mayChange={mayChange} onChange={change} /> }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {outcome.isError && <Failed error={outcome.error} onRetry={() => outcome.refetch()} />}
            {(answer.isPending || (way && outcome.isPending)) && <Notice>Putting the steps in order…</Notice>}
            {answer.data?.conflict && (
              <Notice>
                This page can't be laid out as it stands: <Sentence text={answer.data.conflict.text} /> The Fit station
                shows what to let go.
              </Notice>
            )}
            <Drying
              plan={plan}
              steps={steps}
              clocks={drying.clocks}
              now={drying.now}
              onStop={drying.stop}
              onShow={setPointed}
            />
            {outcome.data && <Summary built={outcome.data} plan={plan} />}
            {outcome.data && (
              <TimeTape
                steps={steps}
                end={outcome.data.end}
                shown={step?.id}
                isDone={(id) => isDone(plan, id)}
                onShow={setPointed}
              />
            )}
            {outcome.data && outcome.data.broken.length > 0 && (
              <div role="alert" className="sheet border-measure">
                <p className="font-semibold">That is farther than it can go:</p>
                <ul>
                  {outcome.data.broken.map((b) => (
                    <li key={b.before + b.after}>
                      <Sentence text={named(b.before)} /> stays before <Sentence text={named(b.after)} />: {b.text}.
                    </li>
                  ))}
                </ul>
              </div>
            )}
            {way && step && (
              <PageSoFar fit={fit} layout={way.layout} blocks={blocks} plan={plan} steps={steps} step={step} />
            )}
          </div>
        }
        more={{
          name: "All steps",
          content: (
            <section aria-labelledby="all-steps" className="sheet">
              <div className="flex flex-wrap items-baseline justify-between gap-2">
                <h2 id="all-steps" className="text-[17px]">
                  All steps
                </h2>
                {steps.length > 0 && (
                  <button type="button" className="button px-2 py-0.5" onClick={() => saveSteps(page.name, steps)}>
                    Save the steps (JSON)
                  </button>
                )}
                {steps.length > 0 && (
                  <a className="button px-2 py-0.5" href={takeAway.steps(page.id)}>
                    Print the steps (PDF)
                  </a>
                )}
                {mayChange && (plan.build?.order?.length ?? 0) > 0 && (
                  <button
                    type="button"
                    className="button px-2 py-0.5"
                    onClick={() => change(withoutOrder(plan), "order given back")}
                  >
                    Back to the order that waits least
                  </button>
                )}
              </div>
              <ol>
                {steps.map((s, n) => (
                  <li
                    key={s.id}
                    className={`flex items-center gap-2 border-hairline border-t py-1 ${s.id === step?.id ? "bg-lit" : ""}`}
                  >
                    <input
                      type="checkbox"
                      aria-label={`Step ${n + 1} is done`}
                      checked={isDone(plan, s.id)}
                      disabled={!mayChange}
                      onChange={(e) => tick(s, e.target.checked)}
                    />
                    <button
                      type="button"
                      className="min-w-0 flex-1 text-left"
                      aria-pressed={s.id === step?.id}
                      onClick={() => setPointed(s.id)}
                    >
                      <strong className="mr-2">{n + 1}</strong>
                      <Sentence text={s.text} />
                      {s.no_return && <span className="ml-2 text-[13px] text-measure">no way back</span>}
                    </button>
                    <span className="num whitespace-nowrap text-[13px] text-second">{s.minutes} min</span>
                  </li>
                ))}
              </ol>
            </section>
          ),
        }}
        ledger={
          <div className="sheet">
            {step ? (
              <StepInHand
                step={step}
                at={steps.indexOf(step)}
                of={steps.length}
                done={isDone(plan, step.id)}
                onDone={mayChange ? (done) => tick(step, done) : undefined}
                onMove={
                  mayChange
                    ? (by) => {
                        setPointed(step.id);
                        change(
                          withMoved(plan, steps, step.id, by),
                          by < 0 ? "a step moved earlier" : "a step moved later",
                        );
                      }
                    : undefined
                }
                named={named}
                onShow={setPointed}
              />
            ) : (
              <p className="text-second">There is nothing to build yet.</p>
            )}
          </div>
        }
      />
    </BlockNumbers>
  );
}

/** The steps with their reasons, as an open document on this device. */
function saveSteps(name: string, steps: readonly BuildStepDoc[]) {
  const written = { format: "metrosk-steps/1", page: name, steps };
  const file = new Blob([JSON.stringify(written, null, 2)], { type: "application/json" });
  const link = document.createElement("a");
  link.href = URL.createObjectURL(file);
  link.download = `${name} steps.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}

function Summary({ built, plan }: { built: BuiltDoc; plan: PlanDoc }) {
  const { steps, work, end } = built;
  const done = steps.filter((s) => isDone(plan, s.id)).length;
  const left = steps.filter((s) => !isDone(plan, s.id)).reduce((sum, s) => sum + s.minutes, 0);
  const waiting = Math.max(0, end - left);
  const tonight = within(steps, TONIGHT);
  return (
    <p role="status">
      {steps.length} steps, <strong>{timeText(work)}</strong> of work
      {done > 0 && `; ${done} done, ${timeText(left)} to go`}.{" "}
      {waiting > 0 ? `Waiting for things to dry takes ${timeText(waiting)} of it all.` : "You wait for nothing."}{" "}
      {tonight < steps.length && <span className="text-second">Two hours take you to step {tonight}.</span>}
    </p>
  );
}

const TECHNIQUES = [
  ["gesso", "prime the ground"],
  ["stitch", "sew papers and strips down"],
  ["spatter", "spatter paint at the end"],
  ["round-corners", "round the page’s corners"],
] as const;

function HowIWork({
  plan,
  mayChange,
  onChange,
}: {
  plan: PlanDoc;
  mayChange: boolean;
  onChange: (plan: PlanDoc, reason: string) => void;
}) {
  const school = plan.build?.school ?? "lay-out-first";
  const chosen = plan.build?.techniques ?? [];
  return (
    <div className="sheet">
      <h2 className="text-[17px]">How I work</h2>
      <fieldset disabled={!mayChange} className="mt-1 grid gap-1">
        <legend className="sr-only">When things are glued</legend>
        {(
          [
            ["lay-out-first", "lay all out dry first"],
            ["glue-as-you-go", "glue as I go"],
          ] as const
        ).map(([value, label]) => (
          <label key={value} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="school"
              checked={school === value}
              onChange={() => onChange(withSchool(plan, value), label)}
            />
            {label}
          </label>
        ))}
      </fieldset>
      <fieldset disabled={!mayChange} className="mt-2 grid gap-1">
        <legend className="font-medium">On this page I also</legend>
        {TECHNIQUES.map(([value, label]) => (
          <label key={value} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={chosen.includes(value)}
              onChange={(e) =>
                onChange(withTechnique(plan, value, e.target.checked), e.target.checked ? label : `not: ${label}`)
              }
            />
            {label}
          </label>
        ))}
      </fieldset>
      <p className="mt-2 text-[13px] text-second">
        Times are what such steps usually take. Follow the instructions of whoever made your paints, glues and tools.
      </p>
    </div>
  );
}

type PageProps = {
  fit: FitDoc;
  layout: LayoutDoc;
  blocks: readonly Numbered[];
  plan: PlanDoc;
  steps: readonly BuildStepDoc[];
  step: BuildStepDoc;
};

/** The page with what lies there already; what is still to come is paler, what this step works on is framed. */
function PageSoFar({ fit, layout, blocks, plan, steps, step }: PageProps) {
  const { canvas } = layout;
  const { frame, scale, size } = usePageScale(canvas);
  const there = new Set(steps.filter((s) => isDone(plan, s.id)).flatMap((s) => s.fixes));
  const tags = tagPlaces(blocks, scale, canvas);
  return (
    <section aria-labelledby="page-so-far" className="min-w-0">
      <h2 id="page-so-far" className="mb-1 text-[17px]">
        The page so far
      </h2>
      <div ref={frame}>
        <svg
          width={RULER + size.w + ROOM}
          height={RULER + size.h + ROOM}
          role="img"
          aria-label="The page with what lies there, to scale"
          className="mx-auto block"
        >
          <Rulers canvas={canvas} unit={unitOf(fit)} scale={scale} at={RULER} />
          <g transform={`translate(${RULER} ${RULER})`}>
            <PageSheet canvas={canvas} blocks={layout.blocks} scale={scale} guard={fit.target.fold_guard ?? 0} />
            {layout.blocks.map(({ id, box }) => {
              const works = step.on.includes(id);
              if (there.has(id) && !works) return null;
              return (
                <rect
                  key={id}
                  x={box.x * scale}
                  y={box.y * scale}
                  width={box.w * scale}
                  height={box.h * scale}
                  fill="#ffffff"
                  fillOpacity={works ? 0 : 0.55}
                  stroke={works ? "#c2185b" : "#51617a"}
                  strokeWidth={works ? 3 : 1}
                  strokeDasharray={works ? undefined : "5 4"}
                />
              );
            })}
            <g aria-hidden style={{ pointerEvents: "none" }}>
              {tags.map(({ number, block, x, y }) => (
                <NumberTag key={block.id} x={x} y={y} number={number} lit={step.on.includes(block.id)} />
              ))}
            </g>
          </g>
        </svg>
      </div>
    </section>
  );
}
