import { Link } from "@tanstack/react-router";
import { memo } from "react";
import type { PageCard } from "@/api/client";
import { PageMenu } from "@/features/history/PageMenu";
import { BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { ScaledThumbnail } from "@/shared/drawing/PageSheet";
import { dueText, isoDay } from "@/shared/ui/days";
import { Sentence } from "@/shared/ui/Length";
import { SizeText } from "@/shared/ui/SizeText";
import { StationTape } from "./StationTape";

/** Pixels an inch of page: all pages on the table are to one scale. */
const SCALE = 7.6;

/** A page as it hangs on the table: to scale, where it stands on the tape, and the next decision. */
export const PageOnTable = memo(function PageOnTable({ page, today }: { page: PageCard; today: Date }) {
  const { layout } = page;
  return (
    <article className="w-[212px]" style={{ contentVisibility: "auto", containIntrinsicSize: "212px 190px" }}>
      <Link
        to="/pages/$pageId/$station"
        params={{ pageId: page.id, station: "fit" }}
        className="block"
        tabIndex={-1}
        aria-label={`Open ${page.name}`}
      >
        <ScaledThumbnail
          canvas={layout.canvas}
          blocks={layout.blocks}
          unit={layout.unit === "mm" ? "mm" : "in"}
          perInch={SCALE}
        />
      </Link>
      <div className="mt-1.5 flex items-start justify-between gap-2">
        <h3 className="text-[16px] leading-tight">
          <Link to="/pages/$pageId/$station" params={{ pageId: page.id, station: "fit" }} className="hover:underline">
            {page.name}
          </Link>
        </h3>
        <PageMenu page={page} small />
      </div>
      <p className="text-second">
        <SizeText page={layout.canvas.page} pages={layout.canvas.pages} unit={layout.unit} />
        {page.due && (
          <>
            ,{" "}
            <span className={page.due < isoDay(today) && !page.finished ? "font-semibold text-measure" : ""}>
              {page.finished ? "done" : dueText(page.due, today)}
            </span>
          </>
        )}
      </p>
      <StationTape stations={page.stations} />
      {page.next && !page.finished && (
        <p className="mt-1 font-medium leading-snug">
          {page.clash ? "Clash: " : "Next: "}
          <BlockNumbers numbers={numbersOf(page.layout.blocks)}>
            <Sentence text={page.next.length > 90 ? `${page.next.slice(0, 88)}…` : page.next} />
          </BlockNumbers>
        </p>
      )}
    </article>
  );
});
