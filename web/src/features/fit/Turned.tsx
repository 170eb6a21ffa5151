import { useQueries } from "@tanstack/react-query";
import { useState } from "react";
import { api, type FitDoc } from "@/api/client";
import { Thumbnail } from "@/shared/drawing/PageSheet";
import { quarterServes } from "./turning";
import { otherStands, stands } from "./wayName";

type Props = { fit: FitDoc; change: (fit: FitDoc, reason: string) => void };

/** The best way of the sketch turned or flipped: fitted when she asks to see them, or by itself where a quarter turn would serve. */
export function Turned({ fit, change }: Props) {
  const why = quarterServes(fit);
  const [asked, setAsked] = useState<boolean>();
  const open = asked ?? why !== undefined;
  return (
    <details className="mt-1" open={open} onToggle={(e) => setAsked(e.currentTarget.open)}>
      <summary className="cursor-pointer font-semibold">Turned or flipped</summary>
      {open && why && <p className="text-second">{why}</p>}
      {open && <Stands fit={fit} change={change} />}
    </details>
  );
}

function Stands({ fit, change }: Props) {
  const others = otherStands(fit);
  const answers = useQueries({
    queries: others.map((other) => ({
      queryKey: ["fit", other],
      queryFn: ({ signal }: { signal: AbortSignal }) => api.fit(other, signal),
      staleTime: Number.POSITIVE_INFINITY,
      gcTime: 60_000,
    })),
  });
  const pinned = (fit.pins?.length ?? 0) > 0;
  return (
    <>
      {pinned && <p className="text-second">Pins hold places on the page as it stands: turning lets go of them.</p>}
      <ul className="mt-1 flex flex-wrap gap-2.5">
        {others.map((other, n) => {
          const best = answers[n]?.data?.proposals[0];
          const name = stands(other) || "as drawn";
          return (
            <li key={name}>
              <button
                type="button"
                disabled={!best}
                onClick={() => change({ ...other, pins: [] }, name)}
                className="cursor-pointer rounded-[3px] border-2 border-transparent p-1 text-left"
              >
                {best ? (
                  <Thumbnail
                    canvas={best.layout.canvas}
                    blocks={best.layout.blocks}
                    width={120}
                    height={76}
                    label={`The sketch ${name}`}
                  />
                ) : (
                  <span className="grid h-[76px] w-[120px] place-items-center border border-hairline text-second">
                    {answers[n]?.isPending ? "fitting…" : "does not fit"}
                  </span>
                )}
                <span className="block text-[13px] font-semibold">{name}</span>
                {best && <span className="block text-[12px] text-second">by {best.approach}</span>}
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
