import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { api, type HopLinkView } from "@/api/client";
import { ScaledThumbnail } from "@/shared/drawing/PageSheet";
import { dayOf, isoDay } from "@/shared/ui/days";
import { Failed } from "@/shared/ui/Failed";
import { shortDay } from "./words";

/** All pages of a hop are to one scale: so many pixels an inch. */
const PER_INCH = 9;

export function useHop(call: string, wanted = true) {
  return useQuery({ queryKey: ["calls", call, "hop"], queryFn: () => api.hop(call), enabled: wanted });
}

/** A hop from maker to maker: its pages on one thread, and how the sketch changed on its way. */
export function HopThread({ call, name }: { call: string; name?: string }) {
  const hop = useHop(call);
  if (hop.isError) return <Failed error={hop.error} onRetry={() => hop.refetch()} />;
  const links = hop.data?.links ?? [];
  if (links.length === 0) return null;
  return (
    <section aria-labelledby={`hop-${call}`} className="min-w-0">
      <div className="mb-2 flex items-baseline justify-between gap-3">
        <h2 id={`hop-${call}`}>{name ? `${name}, from maker to maker` : "The hop, from maker to maker"}</h2>
        <span className="text-second">all pages to one scale</span>
      </div>
      <ol className="flex flex-wrap gap-y-4">
        {links.map((link, n) => (
          <li key={`${link.maker} ${link.day}`} className="relative flex min-w-[230px] flex-auto gap-3 pr-4">
            {n < links.length - 1 && <Thread on={links[n + 1]} />}
            <Hung link={link} />
            <Told link={link} before={links[n - 1]} />
          </li>
        ))}
      </ol>
    </section>
  );
}

/** The thread to the next page; dashed until that has been begun. */
function Thread({ on }: { on: HopLinkView | undefined }) {
  const begun = Boolean(on?.page || on?.drawn);
  return (
    <span
      aria-hidden="true"
      className={`absolute top-[4px] right-[-8px] left-[6px] border-pin border-t-2 ${begun ? "" : "border-dashed"}`}
    />
  );
}

/** A page on the thread; one that is not begun yet is an outline. */
function Hung({ link }: { link: HopLinkView }) {
  const drawn = link.drawn;
  return (
    <div className="relative shrink-0 pt-[14px]">
      <svg className="pointer-events-none absolute top-0 left-0 h-[14px] w-[14px]" aria-hidden="true">
        <path d="M0 3h12l-6 10z" className="fill-pin" />
      </svg>
      {drawn ? (
        <ScaledThumbnail
          canvas={drawn.canvas}
          blocks={drawn.blocks}
          unit={drawn.unit === "mm" ? "mm" : "in"}
          perInch={PER_INCH}
        />
      ) : (
        <span className="block h-[108px] w-[108px] border border-second border-dashed bg-sheet/50" />
      )}
    </div>
  );
}

function Told({ link, before }: { link: HopLinkView; before: HopLinkView | undefined }) {
  const changed = link.changed;
  const past = link.day < isoDay(new Date());
  return (
    <div className="relative z-[1] grid min-w-[110px] content-start gap-0.5 pt-[14px] leading-snug">
      <h3 className="text-[15px]">{link.me ? `${link.maker}, that’s you` : link.maker}</h3>
      {link.page ? (
        <Link to="/pages/$pageId/$station" params={{ pageId: link.page, station: "fit" }} className="link w-fit">
          {link.page_name}
        </Link>
      ) : link.url ? (
        <a href={link.url} className="link w-fit" target="_blank" rel="noreferrer noopener">
          her page
        </a>
      ) : (
        <span className="text-second">{opens(link, before)}</span>
      )}
      <span className="text-second">
        {past ? "shown" : link.settled ? "goes on" : "due"} {shortDay(link.day)}
      </span>
      {changed ? (
        <span className="text-second">{changes(changed)}</span>
      ) : (
        link.blocks > 0 && <span className="text-second">{link.blocks} blocks</span>
      )}
    </div>
  );
}

function opens(link: HopLinkView, before: HopLinkView | undefined): string {
  if (!link.person) return "outside the team";
  if (!before || link.ready) return link.me ? "yours to begin" : "can begin";
  return before.me ? "opens after yours" : `opens after ${before.maker}’s`;
}

/** `12 stayed, 1 moved, 1 came`: what is nought is left out. */
export function changes(changed: NonNullable<HopLinkView["changed"]>): string {
  const parts = (["stayed", "moved", "went", "came"] as const).filter((w) => changed[w] > 0);
  return parts.length === 0 ? "nothing of it is left" : parts.map((w) => `${changed[w]} ${w}`).join(", ");
}

/** A day after the last of a chain. */
export function dayAfterLast(links: readonly { day: string }[]): string {
  const last = links.at(-1)?.day;
  const from = last ? dayOf(last) : new Date();
  return isoDay(new Date(from.getFullYear(), from.getMonth(), from.getDate() + 7));
}
