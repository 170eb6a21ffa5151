import { Link } from "@tanstack/react-router";
import type { NoticeView } from "@/api/client";

/** So many are told at first. */
const MOST = 6;

/** What is due, late or open, and what waits for whom: hers first. */
export function Notices({ notices }: { notices: readonly NoticeView[] }) {
  if (notices.length === 0) return <p className="text-second">Nothing is late, and nothing is due within a week.</p>;
  return (
    <ul>
      {notices.slice(0, MOST).map((n) => (
        <li key={`${n.call} ${n.text}`} className="flex items-baseline gap-3 border-hairline border-t py-1.5">
          <span className={`flex-1 ${n.what === "late" && n.mine ? "font-semibold text-measure" : ""}`}>{n.text}</span>
          {n.page ? (
            <Link to="/pages/$pageId/$station" params={{ pageId: n.page, station: "fit" }} className="link">
              To the page
            </Link>
          ) : (
            <Link to="/calls/$callId" params={{ callId: n.call }} className="link">
              To the call
            </Link>
          )}
        </li>
      ))}
      {notices.length > MOST && <li className="pt-1 text-second">and {notices.length - MOST} more</li>}
    </ul>
  );
}
