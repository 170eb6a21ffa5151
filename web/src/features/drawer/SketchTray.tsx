import { memo } from "react";
import type { SketchView } from "@/api/client";
import { ScaledThumbnail } from "@/shared/drawing/PageSheet";
import { suits, type Tray } from "./trays";

/** Pixels an inch: all sketches of the drawer are to one scale. */
const SCALE = 7.9;

type Props = {
  tray: Tray;
  asked: boolean;
  rankOf: ReadonlyMap<string, number>;
  selected: string | undefined;
  onSelect: (id: string) => void;
};

/** A flat tray: its sketches lie on their lower edges, and its front says what is in it. */
export function SketchTray({ tray, asked, rankOf, selected, onSelect }: Props) {
  const { name, sketches } = tray;
  const suiting = sketches.filter((s) => suits(s, asked)).length;
  return (
    <section aria-label={name}>
      <ul className="mx-1 flex flex-wrap items-end gap-x-6 gap-y-2 border-hairline border-x border-t-4 bg-tray px-3 pt-3 pb-1.5">
        {sketches.map((s) => (
          <SheetInTray
            key={s.id}
            sketch={s}
            pale={!suits(s, asked)}
            rank={rankOf.get(s.id)}
            selected={s.id === selected}
            onSelect={onSelect}
          />
        ))}
      </ul>
      <div className="grid grid-cols-[1fr_auto_1fr] items-center gap-3 border-2 border-second bg-sheet px-3 py-0.5">
        <h2 className="w-fit border border-second px-2 text-[13.5px]">
          {name}{" "}
          <span className="font-body font-normal text-second">
            {sketches.length}
            {asked && `, ${suiting === 0 ? "none suits" : suiting === 1 ? "one suits" : `${suiting} suit`}`}
          </span>
        </h2>
        <span aria-hidden="true" className="h-2 w-16 rounded-full border border-second bg-hairline" />
      </div>
    </section>
  );
}

type SheetProps = {
  sketch: SketchView;
  pale: boolean;
  rank: number | undefined;
  selected: boolean;
  onSelect: (id: string) => void;
};

const SheetInTray = memo(function SheetInTray({ sketch, pale, rank, selected, onSelect }: SheetProps) {
  const { canvas, blocks, unit } = sketch.document;
  return (
    <li
      className="-m-1.5 w-min min-w-[116px] p-1.5"
      style={{ contentVisibility: "auto", containIntrinsicSize: "110px 130px" }}
    >
      <button
        type="button"
        aria-pressed={selected}
        onClick={() => onSelect(sketch.id)}
        className="group block w-full cursor-pointer text-left"
      >
        <span
          className={`relative block w-fit outline-offset-2 group-aria-pressed:outline-3 group-aria-pressed:outline-ink ${pale ? "opacity-50" : ""}`}
        >
          <ScaledThumbnail canvas={canvas} blocks={blocks} unit={unit === "mm" ? "mm" : "in"} perInch={SCALE} />
          {rank !== undefined && (
            <span className="absolute -top-1 -right-1 border border-[#17263b] bg-tape px-1.5 font-bold text-[12px] text-tape-ink">
              {rank}
            </span>
          )}
        </span>
        <span
          className={`mt-1 block line-clamp-2 h-[2.5em] text-[13px] leading-tight ${pale ? "text-second" : "font-semibold"}`}
        >
          {sketch.name}
          {sketch.pages > 0 && (
            <span title={`${sketch.pages} made from it`} className="whitespace-nowrap pl-1 tracking-[1px]">
              <span className="sr-only">, {sketch.pages === 1 ? "1 page" : `${sketch.pages} pages`} made from it</span>
              <span aria-hidden="true">{"■".repeat(Math.min(sketch.pages, 5))}</span>
            </span>
          )}
        </span>
      </button>
    </li>
  );
});
