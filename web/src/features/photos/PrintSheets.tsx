import { useState } from "react";
import {
  type PrinterView,
  type PrintOptions,
  type PrintOrderView,
  type PrintSheetView,
  printedSheet,
  takeAway,
} from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { TurnedImage, usePhotoImages } from "@/shared/drawing/photoImages";
import { Failed } from "@/shared/ui/Failed";
import { Length } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { Notice } from "@/shared/ui/Notice";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { PrintSquare } from "./PrintSquare";
import { usePrinting, usePrintSheets } from "./usePrinting";

type Props = { page: string; revision: number; saved: boolean; onClose: () => void };

const PAPERS = [
  { value: "4x6", label: "4 × 6 in" },
  { value: "5x7", label: "5 × 7 in" },
  { value: "8x10", label: "8 × 10 in" },
  { value: "letter", label: "letter" },
  { value: "a4", label: "A4" },
  { value: "12x12", label: "12 × 12 in" },
  { value: "10x15 cm", label: "10 × 15 cm" },
] as const;

/** The page's files on sheets of photo paper: to take away, and to send to the printer. */
export function PrintSheets({ page, revision, saved, onClose }: Props) {
  const mayChange = useMayChange();
  const [options, setOptions] = useState<PrintOptions>({ paper: "4x6", bleed: 1 / 16, gap: 1 / 8 });
  const sheets = usePrintSheets(page, revision, options);
  const printing = usePrinting(page);
  const found = sheets.data;
  const set = (change: Partial<PrintOptions>) => setOptions((o) => ({ ...o, ...change }));
  return (
    <Sheet
      title="Print photos"
      about="The files on this page, at their exact crop, on sheets of photo paper. Prints on paper are there already."
      width="whole"
      onClose={onClose}
    >
      <div className="mt-3 grid gap-4 min-[900px]:grid-cols-[minmax(0,1fr)_340px]">
        <div className="grid content-start gap-3">
          <div className="flex flex-wrap items-end gap-3">
            <label className="grid gap-0.5 text-second">
              paper
              <select
                className="field py-1 text-ink"
                value={options.paper}
                onChange={(e) => set({ paper: e.target.value })}
              >
                {PAPERS.map((p) => (
                  <option key={p.value} value={p.value}>
                    {p.label}
                  </option>
                ))}
              </select>
            </label>
            <LengthField
              label="bleed"
              value={options.bleed ?? 0}
              unit="in"
              most={1}
              width="4rem"
              onCommit={(bleed) => set({ bleed })}
            />
            <LengthField
              label="gap"
              value={options.gap ?? 0}
              unit="in"
              most={1}
              width="4rem"
              onCommit={(gap) => set({ gap })}
            />
            <span className="ml-auto flex flex-wrap gap-2">
              {found && found.sheets.length > 0 && (
                <a className="button" href={takeAway.printSheets(page, options)} download>
                  Download PDF
                </a>
              )}
            </span>
          </div>
          {!saved && <Notice>The page is being saved; its sheets follow.</Notice>}
          {sheets.isError && <Failed error={sheets.error} onRetry={() => sheets.refetch()} />}
          {sheets.isPending && <Notice>Laying the photos on sheets…</Notice>}
          {found && found.sheets.length === 0 && found.too_large.length === 0 && (
            <Notice>There is no file with a place on this page. Mark a print as a file, or bring pictures in.</Notice>
          )}
          {found && found.too_large.length > 0 && (
            <p role="status" className="text-measure">
              {found.too_large.length === 1 ? "Print" : "Prints"} {found.too_large.join(", ")}{" "}
              {found.too_large.length === 1 ? "is" : "are"} larger than this paper; choose a larger one.
            </p>
          )}
          <ul className="flex flex-wrap gap-4">
            {found?.sheets.map((sheet, n) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: sheets are known by their numbers
              <li key={n}>
                <DrawnSheet sheet={sheet} />
                <p className="mt-1 text-[13px]">
                  sheet {n + 1}, <Length value={sheet.size.w} unit="in" /> ×{" "}
                  <Length value={sheet.size.h} unit="in" withUnit />{" "}
                  <a className="underline" href={takeAway.printSheet(page, n + 1, options)} download>
                    picture<span className="sr-only"> of sheet {n + 1}</span>
                  </a>
                </p>
              </li>
            ))}
          </ul>
        </div>
        <div className="grid content-start gap-4">
          {printing.printer.data && (
            <Printer
              printer={printing.printer.data as PrinterView}
              mayChange={mayChange}
              onSet={(to) => printing.setPrinter.mutate(to)}
            />
          )}
          <button
            type="button"
            className="button button-first justify-self-start"
            disabled={!mayChange || !saved || !found || found.sheets.length === 0 || printing.send.isPending}
            onClick={() => printing.send.mutate(options)}
          >
            Send {found?.sheets.length === 1 ? "the sheet" : `${found?.sheets.length ?? 0} sheets`} to the printer
          </button>
          {printing.send.error && <Failed error={printing.send.error} />}
          <Orders printing={printing} mayChange={mayChange} />
        </div>
      </div>
      <CloseSheet className="mt-4" />
    </Sheet>
  );
}

/** How large a sheet is drawn, in pixels. */
const DRAWN = 220;

function DrawnSheet({ sheet }: { sheet: PrintSheetView }) {
  const images = usePhotoImages();
  const scale = DRAWN / Math.max(sheet.size.w, sheet.size.h);
  const [w, h] = [sheet.size.w * scale, sheet.size.h * scale];
  return (
    <svg width={w + 2} height={h + 2} viewBox={`-1 -1 ${w + 2} ${h + 2}`} role="img" aria-label="A sheet of photos">
      <rect width={w} height={h} fill="#ffffff" stroke="#17263b" />
      {sheet.photos.map((photo) => {
        const b = { x: photo.box.x * scale, y: photo.box.y * scale, w: photo.box.w * scale, h: photo.box.h * scale };
        const [cx, cy] = [b.x + b.w / 2, b.y + b.h / 2];
        const [uw, uh] = photo.turned ? [b.h, b.w] : [b.w, b.h];
        const [sx = 0, sy = 0, sw = 1, sh = 1] = photo.shows;
        const image = images.get(photo.print);
        const cut = sheet.bleed * scale;
        return (
          <g key={photo.print}>
            <g transform={photo.turned ? `rotate(90 ${cx} ${cy})` : undefined}>
              <svg x={cx - uw / 2} y={cy - uh / 2} width={uw} height={uh} overflow="hidden" aria-hidden="true">
                {image ? (
                  <TurnedImage {...image} box={{ x: (-sx / sw) * uw, y: (-sy / sh) * uh, w: uw / sw, h: uh / sh }} />
                ) : (
                  <rect width={uw} height={uh} fill="url(#texture-photo)" />
                )}
              </svg>
            </g>
            <rect
              x={b.x + cut}
              y={b.y + cut}
              width={b.w - 2 * cut}
              height={b.h - 2 * cut}
              fill="none"
              stroke="#c2185b"
              strokeDasharray="4 3"
            />
            <PrintSquare x={b.x + 13} y={b.y + 13} id={photo.print} />
          </g>
        );
      })}
    </svg>
  );
}

/** The simulated printer's tray, ink and rollers. */
function Printer({
  printer,
  mayChange,
  onSet,
}: {
  printer: PrinterView;
  mayChange: boolean;
  onSet: (to: PrinterView) => void;
}) {
  const set = (change: Partial<PrinterView>) => onSet({ ...printer, ...change });
  return (
    <section aria-labelledby="printer" className="grid gap-1.5">
      <h3 id="printer">The photo printer</h3>
      <p className="text-[13px] text-second">A simulated one: it keeps a picture of each sheet that it prints.</p>
      <p>
        {printer.paper === 1 ? "1 sheet" : `${printer.paper} sheets`} in its tray, {printer.ink} % ink
        {printer.jammed && <span className="text-measure">, paper jammed</span>}
      </p>
      {mayChange && (
        <div className="flex flex-wrap gap-2 text-[13px]">
          <button type="button" className="button px-2 py-0.5" onClick={() => set({ paper: 20, ink: 100 })}>
            Fill tray and ink
          </button>
          <button type="button" className="button px-2 py-0.5" onClick={() => set({ paper: 1 })}>
            Leave one sheet
          </button>
          <button type="button" className="button px-2 py-0.5" onClick={() => set({ ink: 0 })}>
            Take the ink out
          </button>
          <button type="button" className="button px-2 py-0.5" onClick={() => set({ jammed: !printer.jammed })}>
            {printer.jammed ? "Take the jam out" : "Jam it"}
          </button>
        </div>
      )}
    </section>
  );
}

function Orders({ printing, mayChange }: { printing: ReturnType<typeof usePrinting>; mayChange: boolean }) {
  const orders = (printing.orders.data ?? []) as readonly PrintOrderView[];
  if (orders.length === 0) return null;
  return (
    <section aria-labelledby="orders" className="grid gap-2">
      <h3 id="orders">Sent to the printer</h3>
      <ol className="grid gap-3">
        {orders.map((order) => (
          <li key={order.id} className="grid gap-1 border-hairline border-t pt-2">
            <p role="status">
              <strong>{stateWord(order)}</strong>, {order.printed.length} of {order.sheets}{" "}
              {order.sheets === 1 ? "sheet" : "sheets"} printed
              <span className="text-second">
                , sent by {order.asked_by} at {clock(order.made_at)}
              </span>
            </p>
            {order.problem && order.state === "failed" && <p className="text-measure">{order.problem.detail}</p>}
            <div className="flex flex-wrap gap-2">
              {order.printed.map(({ sheet, at }) => (
                <a key={sheet} href={printedSheet(order.id, sheet)} target="_blank" rel="noreferrer" className="block">
                  <img
                    src={printedSheet(order.id, sheet)}
                    alt={`Sheet ${sheet} as it was printed`}
                    className="h-[72px] border border-ink"
                  />
                  <span className="block text-[13px] text-second tabular-nums">
                    {sheet} at {clock(at)}
                  </span>
                </a>
              ))}
            </div>
            {mayChange && (
              <div className="flex gap-2">
                {isUnderWay(order) && (
                  <button type="button" className="button px-2 py-0.5" onClick={() => printing.stop.mutate(order)}>
                    Stop
                  </button>
                )}
                {!isUnderWay(order) && order.printed.length < order.sheets && (
                  <button type="button" className="button px-2 py-0.5" onClick={() => printing.goOn.mutate(order.id)}>
                    Go on printing
                  </button>
                )}
              </div>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

const clock = (at: string) =>
  new Date(at).toLocaleTimeString("en", { hour: "numeric", minute: "2-digit" }).toLowerCase();

const isUnderWay = (order: PrintOrderView) => order.state === "waiting" || order.state === "running";

function stateWord(order: PrintOrderView): string {
  if (order.state === "running") return `Printing ${order.progress ?? ""}`.trim();
  if (order.state === "waiting") return "Waiting for the printer";
  if (order.printed.length === order.sheets) return "Printed";
  return order.state === "cancelled" ? "Stopped" : "Interrupted";
}
