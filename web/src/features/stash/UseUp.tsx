import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { api, type StashItemView } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { small } from "./words";

/** Which pages in the making would use a kit up: what each would take of it, what finishes it first. */
export function UseUp({ kit, things }: { kit: string; things: readonly StashItemView[] }) {
  const [open, setOpen] = useState(false);
  const uses = useQuery({
    queryKey: ["kit-use", kit, things.map((t) => `${t.id}-${t.free}`).join()],
    queryFn: ({ signal }) => api.kitUse(kit, signal),
    enabled: open,
  });
  const name = (id: string) => things.find((t) => t.id === id)?.item.name ?? "a paper";
  return (
    <div className="mt-1 text-[13px]">
      <button type="button" className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? "Close" : "Use this kit up"}
      </button>
      {open && uses.isError && <Failed error={uses.error} onRetry={() => uses.refetch()} />}
      {open && uses.isPending && <p className="text-second">Looking through the pages…</p>}
      {open && uses.data?.length === 0 && <p className="text-second">No page in the making still wants paper of it.</p>}
      {open && uses.data && (
        <ul className="mt-1 grid gap-1.5">
          {uses.data.map((use) => (
            <li key={use.page}>
              <Link to="/pages/$pageId/$station" params={{ pageId: use.page, station: "papers" }} className="link">
                {use.name}
              </Link>
              {use.finishes && <b> would finish it</b>}
              <span className="block text-second">
                {`${use.served === use.open ? "all" : small(use.served)} of ${small(use.open)} open pieces: `}
                {Object.entries(use.takes)
                  .map(([id, count]) => `${count} ${name(id)}`)
                  .join(", ")}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
