import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type PictureView, pictureFile } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";

type Props = {
  /** The pictures that lie on the worktop already. */
  there: ReadonlySet<string>;
  onTake: (pictures: readonly PictureView[]) => void;
};

/** Photos that the team brought in before, to lay on this page's worktop too. */
export function FromHouse({ there, onTake }: Props) {
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const photos = useQuery({ queryKey: ["photos"], queryFn: api.photos, enabled: open });
  const free = ((photos.data ?? []) as readonly PictureView[]).filter((p) => !there.has(p.id));
  const close = () => {
    setOpen(false);
    setChosen(new Set());
  };
  const toggle = (id: string) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  return (
    <>
      <button type="button" className="button" onClick={() => setOpen(true)}>
        Our photos
      </button>
      {open && (
        <Sheet
          title="Our photos"
          about="What the team has brought in and does not lie here yet."
          width="wide"
          onClose={close}
        >
          {photos.isError && <Failed error={photos.error} onRetry={() => photos.refetch()} />}
          {photos.isSuccess && free.length === 0 && <p className="mt-3 text-second">All of them lie on the worktop.</p>}
          <ul className="mt-3 flex max-h-[56dvh] flex-wrap gap-3 overflow-y-auto p-1">
            {free.map((p) => (
              <li key={p.id} className="w-[132px]">
                <label className="grid cursor-pointer gap-1">
                  <img
                    src={pictureFile(p.id, "thumb")}
                    alt=""
                    loading="lazy"
                    className={`h-[100px] w-full object-contain ${chosen.has(p.id) ? "outline-2 outline-ink outline-offset-2" : ""}`}
                  />
                  <span className="flex items-start gap-1.5 text-[13px]">
                    <input
                      type="checkbox"
                      className="mt-0.5"
                      checked={chosen.has(p.id)}
                      onChange={() => toggle(p.id)}
                    />
                    <span className="min-w-0 break-words">{p.name}</span>
                  </span>
                </label>
              </li>
            ))}
          </ul>
          <div className="mt-3 flex gap-2">
            <button
              type="button"
              className="button button-first"
              disabled={chosen.size === 0}
              onClick={() => {
                onTake(free.filter((p) => chosen.has(p.id)));
                close();
              }}
            >
              Lay {chosen.size === 1 ? "it" : chosen.size || ""} on the worktop
            </button>
            <CloseSheet>Cancel</CloseSheet>
          </div>
        </Sheet>
      )}
    </>
  );
}
