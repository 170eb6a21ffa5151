import { useState } from "react";
import { api, fieldError, type PictureView, type PlacedPhotoDoc, type PlanDoc, type PrintDoc } from "@/api/client";
import { BlockBadge, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { TurnedImage } from "@/shared/drawing/photoImages";
import { useOnce } from "@/shared/query/useOnce";
import { Length } from "@/shared/ui/Length";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { BringInButton, ComingIn, useFilesOver } from "./BringIn";
import { FromHouse } from "./FromHouse";
import { printsOn, unitOfPlan, withMore } from "./model";
import { PrintSquare } from "./PrintSquare";
import { pictured } from "./pictured";
import { useCarried } from "./useCarried";
import { useIntake } from "./useIntake";

type Props = {
  pageId: string;
  plan: PlanDoc;
  /** How many photos the page has places for. */
  places: number;
  placed: readonly PlacedPhotoDoc[];
  /** The page's own scale, in pixels an inch: the prints lie beside it as they would. */
  perInch: number;
  inHand: string | undefined;
  onTake: (print: string) => void;
  onSwap: ((a: string, b: string) => void) | undefined;
  change: (plan: PlanDoc, reason: string) => void;
  mayChange: boolean;
  /** Files are laid on sheets to print. */
  onPrint: () => void;
  /** What is said of prints that are left over. */
  children: React.ReactNode;
};

/** The prints as they lie on the bare worktop, at the page's own scale. */
export function PrintTray({
  pageId,
  plan,
  places,
  placed,
  perInch,
  inHand,
  onTake,
  onSwap,
  change,
  mayChange,
  onPrint,
  children,
}: Props) {
  const prints = printsOn(plan);
  const unit = unitOfPlan(plan);
  const [said, setSaid] = useState<readonly string[]>([]);
  const onPictures = (pictures: readonly PictureView[]) => {
    const there = new Set(prints.map((p) => p.picture));
    const fresh = pictures.filter((p) => !there.has(p.id));
    const twice = pictures.filter((p) => there.has(p.id));
    setSaid(twice.map((p) => `“${p.name}” lies on the worktop already; it is kept once.`));
    if (fresh.length === 0) return;
    const more = fresh.map((p) => pictured(p, unit));
    const what = fresh.length === 1 ? `picture “${fresh[0]?.name}” brought in` : `${fresh.length} pictures brought in`;
    change(withMore(plan, more, places), what);
  };
  const intake = useIntake(pageId, onPictures);
  const { over, zone } = useFilesOver(mayChange ? intake.add : () => {});
  return (
    <section
      aria-labelledby="prints"
      className={`grid gap-3 rounded-[3px] p-1.5 ${over ? "outline-2 outline-ink outline-dashed" : ""}`}
      {...zone}
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <h2 id="prints" className="text-[17px]">
          Prints on the worktop
        </h2>
        <span className="text-[13px] text-second">at the page's own scale</span>
        {mayChange && (
          <span className="ml-auto flex flex-wrap items-center gap-2">
            {onSwap && prints.length > 1 && <SwapFields onSwap={onSwap} />}
            <FromHouse there={new Set(prints.map((p) => p.picture ?? ""))} onTake={onPictures} />
            <ListPrints plan={plan} places={places} change={change} />
            {prints.some((p) => p.file && !p.aside) && (
              <button type="button" className="button" onClick={onPrint}>
                Print files
              </button>
            )}
            <BringInButton onFiles={intake.add} />
          </span>
        )}
      </div>
      <ComingIn coming={intake.coming} onDrop={intake.drop} said={said} />
      {prints.length === 0 && intake.coming.length === 0 && (
        <p className="max-w-[60ch] text-second">
          No prints yet: the page shows grey places. Drop pictures here, bring them in, or list the prints that you have
          without files, like “three 4x6 level, one 5x7 upright”.
        </p>
      )}
      <ul className="flex flex-wrap items-start gap-x-5 gap-y-4">
        {prints.map((print) => (
          <PrintOnWorktop
            key={print.id}
            print={print}
            at={placed.find((p) => p.print === print.id)}
            perUnit={unit === "mm" ? perInch / 25.4 : perInch}
            unit={unit}
            inHand={print.id === inHand}
            onTake={onTake}
            onSwap={onSwap}
          />
        ))}
        <li className="min-w-[200px] max-w-[320px] flex-1">{children}</li>
      </ul>
    </section>
  );
}

type OnWorktop = {
  print: PrintDoc;
  at: PlacedPhotoDoc | undefined;
  perUnit: number;
  unit: "in" | "mm";
  inHand: boolean;
  onTake: (print: string) => void;
  onSwap: ((a: string, b: string) => void) | undefined;
};

/** How many pixels a thumb needs at the least. */
const TOUCHABLE = 34;

function PrintOnWorktop({ print, at, perUnit, unit, inHand, onTake, onSwap }: OnWorktop) {
  const numbers = useBlockNumbers();
  const carried = useCarried(print.id, { onTake, onSwap });
  const w = Math.max(TOUCHABLE, print.w * perUnit);
  const h = Math.max(TOUCHABLE, print.h * perUnit);
  const outline = inHand
    ? "outline-2 outline-ink outline-offset-[3px]"
    : print.file
      ? "outline outline-ink outline-dashed"
      : "shadow-md";
  return (
    <li style={{ width: Math.max(w, 92) }}>
      <div className="relative" style={{ width: w }}>
        <button
          type="button"
          data-print={print.id}
          aria-pressed={inHand}
          aria-label={`Print ${print.id}${print.name ? `, ${print.name}` : ""}`}
          className={`relative block cursor-pointer bg-white ${outline} ${print.aside && !inHand ? "rotate-[-3deg]" : ""}`}
          style={{ width: w, height: h, touchAction: "pan-y" }}
          {...carried()}
          onClick={(e) => {
            // The keyboard's click: the pointer's is the gesture's.
            if (e.detail === 0) onTake(print.id);
          }}
        >
          <svg width={w} height={h} aria-hidden="true" className="block">
            {print.picture ? (
              <TurnedImage picture={print.picture} turned={print.turned ?? 0} box={{ x: 0, y: 0, w, h }} />
            ) : (
              <rect width={w} height={h} fill="url(#texture-photo)" stroke="#17263b" />
            )}
            <PrintSquare x={13} y={13} id={print.id} />
          </svg>
        </button>
        {print.focal && (
          <span className="pointer-events-none -top-[9px] absolute right-2 bg-tape px-1.5 font-medium text-[12px] text-tape-ink leading-[16px]">
            main
          </span>
        )}
      </div>
      <p className="mt-1.5 text-[13px] leading-snug">
        <Length value={print.w} unit={unit} /> × <Length value={print.h} unit={unit} />{" "}
        {print.file ? "file" : wayUp(print)}
        {at ? (
          <>
            {" "}
            to <BlockBadge number={numbers.get(at.block) ?? at.block} />, {outcome(print, at)}
          </>
        ) : (
          ", no place"
        )}
      </p>
    </li>
  );
}

const wayUp = (p: PrintDoc) => (p.w > p.h ? "level" : p.w < p.h ? "upright" : "square");

function outcome(print: PrintDoc, at: PlacedPhotoDoc): string {
  if (print.file) return at.quality === "coarse" ? "too few dots" : at.quality === "fair" ? "fair" : "printed for it";
  return at.trims.length > 0 ? "trimmed" : "whole";
}

/** Two prints change places, by their numbers. */
function SwapFields({ onSwap }: { onSwap: (a: string, b: string) => void }) {
  const [a, setA] = useState("");
  const [b, setB] = useState("");
  return (
    <form
      className="flex items-center gap-1.5"
      onSubmit={(e) => {
        e.preventDefault();
        onSwap(a.trim(), b.trim());
      }}
    >
      <label className="flex items-center gap-1.5 text-second">
        swap print
        <input className="field w-[44px] text-right" value={a} onChange={(e) => setA(e.target.value)} />
      </label>
      <label className="flex items-center gap-1.5 text-second">
        with
        <input className="field w-[44px] text-right" value={b} onChange={(e) => setB(e.target.value)} />
      </label>
      <button type="submit" className="button" disabled={!a.trim() || !b.trim()}>
        Swap
      </button>
    </form>
  );
}

/** Prints without files, in her words. */
function ListPrints({ plan, places, change }: Pick<Props, "plan" | "places" | "change">) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const unit = unitOfPlan(plan);
  const read = useOnce(
    (said: string) => api.listedPrints(said, unit),
    (prints) => {
      change(withMore(plan, prints, places), `${prints.length} prints listed`);
      setOpen(false);
      setText("");
    },
  );
  return (
    <>
      <button type="button" className="button" onClick={() => setOpen(true)}>
        List prints
      </button>
      {open && (
        <Sheet
          title="List prints"
          about="The prints that you have without files, in your own words."
          onClose={() => setOpen(false)}
        >
          <form
            className="mt-3 grid gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              read.mutate(text);
            }}
          >
            <label className="grid gap-1">
              <span>Prints</span>
              <textarea
                className="field min-h-[72px]"
                value={text}
                placeholder="three 4x6 level, one 5x7 upright, 2 of 3x3"
                onChange={(e) => setText(e.target.value)}
              />
            </label>
            {read.error && (
              <p role="alert" className="text-measure">
                {fieldError(read.error, "text") ?? read.error.message}
              </p>
            )}
            <div className="flex gap-2">
              <button type="submit" className="button button-first" disabled={!text.trim()}>
                Put them on the worktop
              </button>
              <CloseSheet>Cancel</CloseSheet>
            </div>
          </form>
        </Sheet>
      )}
    </>
  );
}
