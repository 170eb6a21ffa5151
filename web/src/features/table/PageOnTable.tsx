import { Link } from "@tanstack/react-router";
import { memo, useMemo } from "react";
import type { PageCard } from "@/api/client";
import { PageMenu } from "@/features/history/PageMenu";
import { looksOf } from "@/features/stash/looks";
import { useStashById } from "@/features/stash/useStash";
import { BlockNumbers, numbersOf } from "@/shared/drawing/BlockNumbers";
import { ScaledThumbnail } from "@/shared/drawing/PageSheet";
import { PapersOf } from "@/shared/drawing/papers";
import { imagesOf, PhotoImagesOf } from "@/shared/drawing/photoImages";
import { dueText, isoDay } from "@/shared/ui/days";
import { Sentence } from "@/shared/ui/Length";
import { SizeText } from "@/shared/ui/SizeText";
import { StationTape } from "./StationTape";

/** Pixels an inch of page: all pages on the table are to one scale, those further off to half of it. */
export const SCALE = 9.2;

/** How large a page is drawn, in pixels. */
export function drawnSize({ layout }: PageCard, scale = SCALE): { w: number; h: number } {
  const perUnit = layout.unit === "mm" ? scale / 25.4 : scale;
  const { page, pages } = layout.canvas;
  return { w: page.w * pages * perUnit, h: page.h * perUnit };
}

/** What is to be decided next, its first letter large. */
export function NextDecision({ page }: { page: PageCard }) {
  const next = page.next ?? "";
  return (
    <BlockNumbers numbers={numbersOf(page.layout.blocks)}>
      <Sentence text={next.charAt(0).toUpperCase() + next.slice(1)} />
    </BlockNumbers>
  );
}

type Props = {
  page: PageCard;
  today: Date;
  /** Pixels an inch. */
  scale?: number;
  /** The words beside the picture rather than under it. */
  beside?: boolean;
  /** The page's size in words, where its due date doesn't stand. */
  sized?: boolean;
  /** Degrees by which it lies askew. */
  askew?: number | undefined;
};

/** A page as it hangs on the table: to scale, where it stands on the tape, and the next decision. */
export const PageOnTable = memo(function PageOnTable({ page, today, scale = SCALE, beside, sized, askew }: Props) {
  const { layout } = page;
  const images = useMemo(
    () => imagesOf(page.pictures.map((p) => ({ id: p.id, picture: p.picture, turned: p.turned }))),
    [page.pictures],
  );
  const stash = useStashById();
  const looks = useMemo(
    () => looksOf(page.papers, stash, layout.unit === "mm" ? "mm" : "in"),
    [layout.unit, page.papers, stash],
  );
  const late = page.due && page.due < isoDay(today) && !page.finished;
  const to = { to: "/pages/$pageId/$station", params: { pageId: page.id, station: stationToOpen(page) } } as const;
  return (
    <article className={beside ? "flex items-start gap-2.5" : ""}>
      <Link
        {...to}
        className="block w-fit shrink-0"
        style={askew ? { transform: `rotate(${askew}deg)` } : undefined}
        tabIndex={-1}
        aria-label={`Open ${page.name}`}
      >
        <PhotoImagesOf value={images}>
          <PapersOf value={looks}>
            <ScaledThumbnail
              canvas={layout.canvas}
              blocks={layout.blocks}
              unit={layout.unit === "mm" ? "mm" : "in"}
              perInch={scale}
            />
          </PapersOf>
        </PhotoImagesOf>
      </Link>
      <div className={`min-w-0 flex-1 ${beside ? "" : "mt-1"}`}>
        <div className="flex items-start gap-1">
          <h3 className="min-w-0 text-[15px] leading-tight">
            <Link {...to} className="hover:underline">
              {page.name}
            </Link>
          </h3>
          <PageMenu page={page} small />
        </div>
        <p className={`text-[13.5px] leading-snug ${late ? "font-semibold text-measure" : "text-second"}`}>
          {page.due && !sized ? (
            page.finished ? (
              "finished"
            ) : (
              dueText(page.due, today)
            )
          ) : (
            <SizeText page={layout.canvas.page} pages={layout.canvas.pages} unit={layout.unit} />
          )}
        </p>
        {page.call && (
          <p className="truncate text-[13.5px] text-second leading-snug">
            for{" "}
            <Link to="/calls/$callId" params={{ callId: page.call.id }} className="hover:underline">
              {page.call.name}
            </Link>
          </p>
        )}
        <StationTape stations={page.stations} />
        {page.next && !page.finished && (
          <p className="mt-0.5 line-clamp-2 text-[13.5px] leading-snug">
            <NextDecision page={page} />
          </p>
        )}
      </div>
    </article>
  );
});

/** Where work on a page goes on: the first station that has something to decide. */
export function stationToOpen(page: PageCard): string {
  const { stations } = page;
  const at = stations.find((s) => s.state === "needs-a-look") ?? stations.find((s) => s.state === "open");
  return at?.name ?? "fit";
}
