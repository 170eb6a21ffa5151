import { Dialog } from "radix-ui";
import { useEffect, useRef } from "react";
import type { CutSheetDoc, CutStepDoc } from "@/api/client";
import { type PaperLook, usePaperFills } from "@/shared/drawing/papers";
import type { Unit } from "@/shared/lengths/length";
import { Length, Sentence } from "@/shared/ui/Length";
import { useKeyBindings } from "@/shared/ui/useKeyBindings";
import { useWidth } from "@/shared/ui/useWidth";
import { finished, howOften, nextSheet, partsOf, stepAt, type Turn, turnFor, whichOne } from "./model";
import { SheetDrawing } from "./SheetDrawing";

type Props = {
  sheets: readonly CutSheetDoc[];
  nameOf: (s: CutSheetDoc) => string;
  lookOf: (s: CutSheetDoc) => PaperLook;
  labelOf: (piece: string) => string;
  unit: Unit;
  onTick: ((sheet: CutSheetDoc, done: number) => void) | undefined;
  onWrong: ((sheet: CutSheetDoc, piece: string) => void) | undefined;
  onLeave: () => void;
};

/** At the table: one instruction at a time in large type; a tap anywhere on the dark panel, space or a foot switch ticks it off. */
export function AtTable(props: Props) {
  const { sheets, nameOf, lookOf, labelOf, unit, onTick, onWrong, onLeave } = props;
  useScreenStaysOn();
  const at = nextSheet(sheets);
  const sheet = sheets[at];
  const before = sheets[at < 0 ? sheets.length - 1 : at - 1];
  const tick = () => sheet && onTick?.(sheet, sheet.done + 1);
  const back = () => {
    if (sheet && sheet.done > 0) onTick?.(sheet, sheet.done - 1);
    else if (before && before.done > 0) onTick?.(before, before.done - 1);
  };
  const key = (act: () => void) => (e: KeyboardEvent) => {
    e.preventDefault();
    act();
  };
  // Foot switches send one of these.
  useKeyBindings({
    Space: key(tick),
    PageDown: key(tick),
    ArrowRight: key(tick),
    PageUp: key(back),
    ArrowLeft: key(back),
    Backspace: key(back),
  });
  const wrongOf = [sheet, before].find((s) => s && finished(s).some((p) => !s.wrong.includes(p)));
  const lastCut = wrongOf && finished(wrongOf).find((p) => !wrongOf.wrong.includes(p));
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onLeave()}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-30 grid grid-rows-[auto_minmax(0,1fr)] overflow-y-auto bg-worktop"
        >
          <SheetTape sheets={sheets} at={at} />
          <div className="mx-auto grid w-full max-w-[860px] content-start gap-4 px-4 py-4 sm:px-8">
            <div className="flex flex-wrap items-center justify-between gap-3">
              <p className="text-[18px] text-second">
                {sheet ? (
                  <>
                    <strong className="text-[22px] text-ink">{nameOf(sheet)}</strong> sheet {at + 1} of {sheets.length},
                    cut {cutsBefore(sheets, at) + sheet.done + 1} of {cutsBefore(sheets, sheets.length)}
                  </>
                ) : (
                  "All sheets are cut."
                )}
              </p>
              <button type="button" className="button min-h-[44px]" onClick={onLeave}>
                Leave the table
              </button>
            </div>
            {sheet ? (
              <Instruction
                sheet={sheet}
                look={lookOf(sheet)}
                labelOf={labelOf}
                unit={unit}
                onTick={onTick ? tick : undefined}
              />
            ) : (
              <Dialog.Title className="text-[40px] leading-tight">All is cut.</Dialog.Title>
            )}
            {onTick && (
              <div className="grid grid-cols-2 gap-3">
                <button type="button" className="button min-h-[72px] justify-center text-[20px]" onClick={back}>
                  Take one back
                </button>
                <button
                  type="button"
                  className="button min-h-[72px] justify-center text-[20px]"
                  disabled={!lastCut}
                  onClick={() => wrongOf && lastCut && onWrong?.(wrongOf, lastCut)}
                >
                  {lastCut ? `I cut ${labelOf(lastCut)} wrong` : "I cut it wrong"}
                </button>
              </div>
            )}
            {sheet && <Next sheet={sheet} look={lookOf(sheet)} labelOf={labelOf} unit={unit} name={nameOf(sheet)} />}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const cutsBefore = (sheets: readonly CutSheetDoc[], at: number) =>
  sheets.slice(0, at).reduce((sum, s) => sum + s.cuts.length, 0);

/** The tape counts sheets: those that are cut are inked over. */
function SheetTape({ sheets, at }: { sheets: readonly CutSheetDoc[]; at: number }) {
  return (
    <ol className="flex h-[56px] bg-tape text-tape-ink" aria-label="Sheets">
      {sheets.map((s, n) => {
        const done = s.done >= s.cuts.length;
        const here = n === at;
        return (
          <li
            key={`${s.item}-${s.copy}`}
            style={{ flexGrow: Math.max(1, s.cuts.length) }}
            className={`grid place-items-center border-tape-ink border-r font-heading font-semibold ${done ? "bg-ink text-sheet" : ""}`}
            aria-current={here ? "step" : undefined}
          >
            <span>
              {here ? `sheet ${n + 1}` : n + 1}
              {done && <span className="sr-only">, cut</span>}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

type InstructionProps = {
  sheet: CutSheetDoc;
  look: PaperLook;
  labelOf: (piece: string) => string;
  unit: Unit;
  onTick: (() => void) | undefined;
};

function Instruction({ sheet, look, labelOf, unit, onTick }: InstructionProps) {
  const step = sheet.steps[stepAt(sheet)];
  if (!step) return null;
  const nth = sheet.done - step.first;
  return (
    <>
      <Dialog.Title className="font-heading text-[44px] leading-[1.08] sm:text-[76px]">
        {step.beyond_reach ? "Mark " : "Set "}
        <Length value={step.setting} unit={unit} />.<br />
        Cut {howOften(step.times)}.
      </Dialog.Title>
      <p className="text-[20px]">
        <Sentence text={step.text} />
        {step.done.length > 0 && (
          <span className="block text-second">
            {step.done.map(labelOf).join(", ")} {step.done.length === 1 ? "is" : "are"} then cut.
          </span>
        )}
      </p>
      <OnTrimmer sheet={sheet} step={step} look={look} labelOf={labelOf} unit={unit} />
      <button
        type="button"
        disabled={!onTick}
        onClick={onTick}
        className="grid min-h-[120px] grid-cols-[auto_minmax(0,1fr)] items-center gap-6 rounded bg-ink px-6 py-4 text-left text-sheet disabled:opacity-60"
      >
        <svg width="84" height="84" viewBox="0 0 84 84" aria-hidden>
          <circle cx="42" cy="42" r="38" fill="none" stroke="currentColor" strokeWidth="5" />
          <path d="M26 43l11 12 21-25" fill="none" stroke="currentColor" strokeWidth="7" />
        </svg>
        <span className="grid gap-2">
          <span className="font-heading font-semibold text-[30px] leading-tight sm:text-[40px]">
            {step.times > 1 ? `${whichOne(nth)} cut made` : "Cut made"}
          </span>
          <span className="flex flex-wrap items-center gap-2 text-[16px]">
            {step.times > 1 &&
              sheet.cuts.slice(step.first, step.first + step.times).map((cut, n) => (
                <span
                  key={cut.part}
                  className={`grid h-8 w-10 place-items-center border-2 ${n < nth ? "border-tape bg-tape text-tape-ink" : "border-sheet"}`}
                >
                  {n < nth ? "✓" : n + 1}
                </span>
              ))}
            <span className="ml-auto">tap, space or pedal</span>
          </span>
        </span>
      </button>
    </>
  );
}

type OnTrimmerProps = {
  sheet: CutSheetDoc;
  step: CutStepDoc;
  look: PaperLook;
  labelOf: (p: string) => string;
  unit: Unit;
};

/** The part as it lies at the stop, under the rule, with the blade's line. */
function OnTrimmer({ sheet, step, look, labelOf, unit }: OnTrimmerProps) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 640);
  const cut = sheet.cuts[sheet.done];
  const part = cut && partsOf(sheet).get(cut.part);
  const across = part && (step.along === "x" ? part.h : part.w);
  const down = part && (step.along === "x" ? part.w : part.h);
  const marks = unit === "mm" ? Math.ceil((across ?? 0) / 10) : Math.ceil(across ?? 0);
  const rule = Math.max(marks, 1) * (unit === "mm" ? 10 : 1);
  const scale = Math.min((width - 40) / rule, unit === "mm" ? 2.6 : 66);
  const { defs, fill } = usePaperFills([look], scale);
  if (!part || across === undefined || down === undefined) return null;
  // With little room every other number is left out.
  const roomy = scale * (unit === "mm" ? 10 : 1) > 34;
  // A long part is shown as far as there is room; the cut is the same all along it.
  const shown = Math.min(down * scale, 190);
  const at = step.setting * scale;
  const inPart = sheet.pieces.filter((p) => isWithin(p, part));
  return (
    <div ref={frame}>
      <svg
        width="100%"
        height={shown + 100}
        role="img"
        aria-label={`The part at the stop, the blade at ${step.setting} ${unit}`}
      >
        <defs>
          {defs}
          <clipPath id="part-shown">
            <rect width={across * scale} height={shown} />
          </clipPath>
        </defs>
        <g transform="translate(24 0)">
          <rect x={-14} y={0} width={14} height={shown + 96} fill="#17263b" />
          <rect x={0} y={4} width={rule * scale} height={58} fill="#ffffff" stroke="#17263b" />
          {Array.from({ length: marks + 1 }, (_, n) => {
            const x = n * (unit === "mm" ? 10 : 1) * scale;
            return (
              <g key={`mark-${String(n)}`}>
                <path d={`M${x} 62V40`} stroke="#17263b" />
                {(roomy || n % 2 === 0) && (
                  <text
                    x={Math.min(x + 3, rule * scale - (roomy ? 23 : 16))}
                    y={34}
                    fontSize={roomy ? 17 : 12}
                    fontWeight={600}
                    fill="#17263b"
                  >
                    {unit === "mm" ? n * 10 : n}
                  </text>
                )}
                {n < marks &&
                  [1, 2, 3, 4, 5, 6, 7].map((k) => {
                    const off = (k / 8) * (unit === "mm" ? 10 : 1) * scale;
                    return (
                      <path key={k} d={`M${x + off} 62V${k === 4 ? 48 : 54}`} stroke="#17263b" strokeWidth={0.8} />
                    );
                  })}
              </g>
            );
          })}
          <g transform="translate(0 78)" clipPath="url(#part-shown)">
            <g transform={turnOf(turnFor(step), part, scale)}>
              <g transform={`translate(${-part.x * scale} ${-part.y * scale})`}>
                <rect
                  x={part.x * scale}
                  y={part.y * scale}
                  width={part.w * scale}
                  height={part.h * scale}
                  fill={fill(look) ?? "#ffffff"}
                  stroke="#17263b"
                />
                <rect
                  x={part.x * scale}
                  y={part.y * scale}
                  width={part.w * scale}
                  height={part.h * scale}
                  fill="#ffffff"
                  fillOpacity={0.62}
                />
                {inPart.map((p) => (
                  <rect
                    key={p.name}
                    x={p.x * scale}
                    y={p.y * scale}
                    width={p.w * scale}
                    height={p.h * scale}
                    fill={fill(look) ?? "#ffffff"}
                    stroke="#17263b"
                  />
                ))}
              </g>
            </g>
          </g>
          <g aria-hidden>
            {inPart.map((p) => {
              const place = seenAt(turnFor(step), part, p);
              const wide = (step.along === "x" ? p.h : p.w) * scale;
              // A name that would cover its neighbour's is left out: the text below tells which is which.
              if (wide < 46) return null;
              const [x, y] = [place.x * scale, 78 + Math.min(place.y * scale, shown / 2)];
              return (
                <g key={p.name}>
                  <rect x={x - 24} y={y - 13} width={48} height={26} rx={13} fill="#ffffff" stroke="#17263b" />
                  <text x={x} y={y + 5} textAnchor="middle" fontSize={14} fontWeight={700} fill="#17263b">
                    {labelOf(p.name)}
                  </text>
                </g>
              );
            })}
          </g>
          <path d={`M${at} 0V${shown + 96}`} stroke="#ffffff" strokeWidth={10} />
          <path d={`M${at} 0V${shown + 96}`} stroke="#c2185b" strokeWidth={5} />
          <path d={`M${at - 18} 0H${at + 18}L${at} 24Z`} fill="#c2185b" />
        </g>
      </svg>
    </div>
  );
}

type Box = { x: number; y: number; w: number; h: number };

const HAIR = 1e-3;

const isWithin = (a: Box, b: Box) =>
  a.x >= b.x - HAIR && a.y >= b.y - HAIR && a.x + a.w <= b.x + b.w + HAIR && a.y + a.h <= b.y + b.h + HAIR;

/** The turn that brings the edge which is measured from to the left. */
function turnOf(turn: Turn, part: Box, scale: number): string | undefined {
  const [w, h] = [part.w * scale, part.h * scale];
  switch (turn) {
    case "top":
      return `translate(0 ${w}) rotate(-90)`;
    case "bottom":
      return `translate(${h} 0) rotate(90)`;
    case "right":
      return `translate(${w} ${h}) rotate(180)`;
    default:
      return undefined;
  }
}

/** Where the middle of a piece is seen then. */
function seenAt(turn: Turn, part: Box, piece: Box): { x: number; y: number } {
  const [x, y] = [piece.x + piece.w / 2 - part.x, piece.y + piece.h / 2 - part.y];
  switch (turn) {
    case "top":
      return { x: y, y: part.w - x };
    case "bottom":
      return { x: part.h - y, y: x };
    case "right":
      return { x: part.w - x, y: part.h - y };
    default:
      return { x, y };
  }
}

function Next({ sheet, look, labelOf, unit, name }: Omit<InstructionProps, "onTick"> & { name: string }) {
  const next = sheet.steps[stepAt(sheet) + 1];
  const left = sheet.steps.length - stepAt(sheet) - 1;
  return (
    <div className="flex items-start justify-between gap-4 border-ink border-t-2 pt-3">
      <div>
        <p className="text-second">next</p>
        {next ? (
          <>
            <p className="font-heading font-semibold text-[26px]">
              Set <Length value={next.setting} unit={unit} />, cut {howOften(next.times)}
            </p>
            <p className="text-[17px]">
              <Sentence text={next.text} />
            </p>
            {left > 1 && <p className="text-second">Then {left - 1} more, and this sheet is done.</p>}
          </>
        ) : (
          <p className="font-heading font-semibold text-[26px]">This sheet is done.</p>
        )}
      </div>
      <div className="shrink-0">
        <SheetDrawing
          sheet={sheet}
          look={look}
          labelOf={labelOf}
          unit={unit}
          scale={130 / Math.max(sheet.w, sheet.h)}
          small
          name={`${name}, whole`}
        />
      </div>
    </div>
  );
}

/** The screen stays on while she cuts, where the browser can do that. */
function useScreenStaysOn() {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const hold = async () => {
      try {
        const held = await navigator.wakeLock?.request("screen");
        if (gone) held?.release();
        else lock = held;
      } catch {
        // A browser that doesn't let it stay on lets it go off.
      }
    };
    const again = () => document.visibilityState === "visible" && hold();
    hold();
    document.addEventListener("visibilitychange", again);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", again);
      lock?.release();
    };
  }, []);
}
