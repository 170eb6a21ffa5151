import type { PaperedPieceDoc, PlanDoc } from "@/api/client";
import { unitOfPlan } from "@/features/photos/model";
import { isSeeThrough, lookOf, type StashById, sideName } from "@/features/stash/looks";
import { usePaperFills } from "@/shared/drawing/papers";
import { rulerText, toTicks, type Unit } from "@/shared/lengths/length";
import { Length, LengthSpans, Sentence } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { Segments } from "@/shared/ui/Segments";
import { MadeUp } from "./MadeUp";
import { choiceOf, isGutted, withChoice, withDie, withGutted } from "./model";

type Props = {
  plan: PlanDoc;
  piece: PaperedPieceDoc;
  label: string;
  stash: StashById;
  mayChange: boolean;
  change: (next: PlanDoc, reason: string) => void;
};

/** The usual tuck allowance, in inches. */
const TUCK = 0.5;

/** The piece in hand: what shows, what is cut, how far it tucks under its neighbours, and why. */
export function PieceInHand({ plan, piece, label, stash, mayChange, change }: Props) {
  const unit = unitOfPlan(plan);
  const choice = choiceOf(plan, piece);
  const paper = piece.paper && stash.get(piece.paper.item);
  const usual = plan.papers?.tuck ?? (unit === "mm" ? TUCK * 25.4 : TUCK);
  const isGround = !piece.of;
  return (
    <section aria-labelledby="piece-in-hand" className="grid gap-2">
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h2 id="piece-in-hand" className="text-[17px]">
          {label.startsWith("the") ? label.replace("the", "The") : `Piece ${label}`}
        </h2>
        <span className="text-[13px] text-second">
          {paper ? sideName(paper.item, piece.paper?.side) : "no paper yet"}
        </span>
      </div>
      <div className="grid grid-cols-[150px_minmax(0,1fr)] gap-3">
        <CutDrawing piece={piece} stash={stash} unit={unit} />
        <div className="grid content-start gap-2">
          <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-3 text-right">
            <dt className="text-left text-second">shows</dt>
            <dd className="text-[15px]">
              <SizeOf box={piece.shows} unit={unit} />
            </dd>
            <dt className="border-hairline border-t text-left text-second">cut</dt>
            <dd className="border-hairline border-t font-bold text-[19px] text-measure">
              <SizeOf box={piece.cut} unit={unit} />
            </dd>
          </dl>
          {piece.short && (
            <p role="status" className="font-semibold text-[13px] text-measure">
              <Sentence text={piece.short} />
            </p>
          )}
          {piece.told.length > 0 && (
            <p className="text-[13px]">
              {piece.told.map((text) => (
                <span key={text}>
                  <Sentence text={text} />{" "}
                </span>
              ))}
            </p>
          )}
        </div>
      </div>
      {!isGround && (
        <div className="flex flex-wrap items-end justify-between gap-2">
          <LengthField
            label="Tuck"
            value={choice.tuck ?? usual}
            unit={unit}
            most={6}
            width="4rem"
            onCommit={(tuck) => mayChange && change(withChoice(plan, piece, { tuck }), `tuck of ${label}`)}
          />
          <Segments
            label="How much is cut"
            value={(choice.cut ?? plan.papers?.cut ?? "lean") as "lean" | "whole"}
            disabled={!mayChange}
            options={[
              { value: "whole", label: "whole" },
              { value: "lean", label: "lean" },
            ]}
            onChoose={(cut) => change(withChoice(plan, piece, { cut }), `${label} cut ${cut}`)}
          />
        </div>
      )}
      {!isGround && !piece.unit && (
        <PutTogether plan={plan} piece={piece} label={label} stash={stash} mayChange={mayChange} change={change} />
      )}
      <Gutting
        plan={plan}
        piece={piece}
        label={label}
        stash={stash}
        unit={unit}
        mayChange={mayChange}
        change={change}
      />
      {!isGround && <MadeUp plan={plan} piece={piece} label={label} mayChange={mayChange} change={change} />}
    </section>
  );
}

type CutAs = "one" | "parts" | "strips";

/** Paper saved: one piece of paper, one for each part that shows, or four strips round what is hidden; and a twin for the back. */
function PutTogether({ plan, piece, label, stash, mayChange, change }: Props) {
  const choice = choiceOf(plan, piece);
  const as = (choice.cut_as ?? "one") as CutAs;
  const options: { value: CutAs; label: string }[] = [
    { value: "one", label: "one piece" },
    ...(piece.parts > 1 || as === "parts" ? [{ value: "parts" as const, label: "only what shows" }] : []),
    ...(piece.kind === "mat" || as === "strips" ? [{ value: "strips" as const, label: "four strips" }] : []),
  ];
  const ground = stash.get(plan.papers?.ground?.[String(piece.page)]?.item ?? "")?.item;
  const mayShowItsBack = choice.twin || (ground && isSeeThrough(ground));
  const isWhole = as !== "one" && !piece.slice;
  return (
    <div className="grid gap-1 text-[13px]">
      {options.length > 1 && (
        <Segments
          label="Put together from"
          value={as}
          disabled={!mayChange}
          options={options}
          onChoose={(cut_as) =>
            change(
              withChoice(plan, piece, { cut_as: cut_as === "one" ? undefined : cut_as }),
              `${label} ${SAID[cut_as]}`,
            )
          }
        />
      )}
      {isWhole && <p className="text-second">Too little of it is hidden for that: it is cut as one piece.</p>}
      {mayShowItsBack && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={choice.twin ?? false}
            disabled={!mayChange}
            onChange={(e) =>
              change(
                withChoice(plan, piece, { twin: e.target.checked || undefined }),
                `${label} ${e.target.checked ? "with a twin" : "without a twin"}`,
              )
            }
          />
          Cut a twin for the back
        </label>
      )}
    </div>
  );
}

const SAID: Record<CutAs, string> = {
  one: "cut as one piece",
  parts: "cut only where it shows",
  strips: "cut as four strips",
};

function SizeOf({ box, unit }: { box: { w: number; h: number }; unit: Unit }) {
  return (
    <>
      <Length value={box.w} unit={unit} /> × <Length value={box.h} unit={unit} />
    </>
  );
}

/** What can come out of a sheet that lies under others. */
function Gutting({ plan, piece, label, stash, unit, mayChange, change }: Props & { unit: Unit }) {
  if (piece.turn || piece.unit) return null;
  const gutted = isGutted(plan, piece);
  return (
    <div className="text-[13px]">
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={gutted}
          disabled={!mayChange}
          onChange={(e) =>
            change(withGutted(plan, piece, e.target.checked), `${label} ${e.target.checked ? "gutted" : "left whole"}`)
          }
        />
        Cut its hidden middle out
      </label>
      {gutted && (
        <p className="mt-0.5 ml-7 text-second">
          {piece.hole ? (
            <>
              <SizeOf box={piece.hole} unit={unit} /> {unit} comes out of it, and nobody sees the hole.
              <OutOfTheMiddle
                plan={plan}
                piece={piece}
                label={label}
                stash={stash}
                mayChange={mayChange}
                change={change}
              />
            </>
          ) : (
            "Nothing large enough lies hidden under other pieces."
          )}
        </p>
      )}
    </div>
  );
}

/** What is cut out of the hidden middle: all of it as one piece, or shapes of a die, each where the picture of the paper is best. */
function OutOfTheMiddle({ plan, piece, label, stash, mayChange, change }: Props) {
  const unit = unitOfPlan(plan);
  const gives = piece.hole_gives ?? [];
  const chosen = plan.papers?.gut?.dies?.[piece.name];
  if (gives.length === 0 && !chosen) return null;
  const keyOf = (tool: string, size: { w: number; h: number }) => `${tool} ${size.w} ${size.h}`;
  const value = chosen ? keyOf(chosen.tool, chosen.size) : "";
  const options = gives.map((g) => ({ ...g, key: keyOf(g.tool, g.size) }));
  const plain = (length: number) => rulerText(toTicks(length, unit), unit);
  const count = piece.dies?.places.length ?? 0;
  return (
    <span className="mt-1 grid gap-1">
      <label className="flex flex-wrap items-center gap-1.5">
        What comes out
        <select
          className="field py-0.5 text-ink"
          value={value}
          disabled={!mayChange}
          onChange={(e) => {
            const die = options.find((o) => o.key === e.target.value);
            change(
              withDie(plan, piece, die && { tool: die.tool, size: die.size, count: die.each }),
              die ? `die shapes out of ${label}` : `the whole middle out of ${label}`,
            );
          }}
        >
          <option value="">all of it, as one piece</option>
          {options.map((o) => (
            <option key={o.key} value={o.key}>
              {o.each} of {plain(o.size.w)} × {plain(o.size.h)}, {stash.get(o.tool)?.item.name ?? "a die"}
            </option>
          ))}
        </select>
      </label>
      {chosen && (
        <span>
          {count === 0
            ? "None fits any more: choose another die, or take all of it."
            : "They lie where the picture of the paper is best; the page shows where."}
        </span>
      )}
    </span>
  );
}

const ROOM = { w: 150, h: 150 };

/** The piece as it is cut: what shows in full, what is tucked away veiled, with both measures. */
function CutDrawing({ piece, stash, unit }: { piece: PaperedPieceDoc; stash: StashById; unit: Unit }) {
  const found = piece.paper ? stash.get(piece.paper.item) : undefined;
  const { cut, tucked } = piece;
  const scale = Math.min((ROOM.w - 42) / cut.w, (ROOM.h - 30) / cut.h);
  const look = found && lookOf(found.item, piece.paper?.side, unit);
  const { defs, fill } = usePaperFills(look ? [look] : [], scale);
  const [w, h] = [cut.w * scale, cut.h * scale];
  const shows = {
    x: tucked.left * scale,
    y: tucked.top * scale,
    width: Math.max(1, w - (tucked.left + tucked.right) * scale),
    height: Math.max(1, h - (tucked.top + tucked.bottom) * scale),
  };
  return (
    <svg width={ROOM.w} height={h + 30} role="img" aria-label="The piece as it is cut">
      <defs>{defs}</defs>
      <g transform="translate(8 22)">
        <rect width={w} height={h} fill={fill(look) ?? "#ffffff"} />
        <path
          fillRule="evenodd"
          d={`M0 0H${w}V${h}H0ZM${shows.x} ${shows.y}h${shows.width}v${shows.height}h${-shows.width}Z`}
          fill="#ffffff"
          fillOpacity={0.62}
        />
        <rect width={w} height={h} fill="none" stroke="#c2185b" strokeWidth={1.4} />
        <rect {...shows} fill="none" stroke="#17263b" strokeDasharray="4 3" />
        <g fill="#c2185b" stroke="#c2185b">
          <path d={`M0 -6H${w}`} fill="none" />
          <circle cx={0} cy={-6} r={2} />
          <circle cx={w} cy={-6} r={2} />
          <path d={`M${w + 8} 0V${h}`} fill="none" />
          <circle cx={w + 8} cy={0} r={2} />
          <circle cx={w + 8} cy={h} r={2} />
        </g>
        <text x={w / 2} y={-11} textAnchor="middle" fontSize={12} fontWeight={700} className="fill-measure">
          <LengthSpans value={cut.w} unit={unit} />
        </text>
        <text x={w + 13} y={h / 2 + 4} fontSize={12} fontWeight={700} className="fill-measure">
          <LengthSpans value={cut.h} unit={unit} />
        </text>
      </g>
    </svg>
  );
}
