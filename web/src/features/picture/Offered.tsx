import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type PictureView, pictureFile } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { Confirm } from "@/shared/ui/Confirm";

type Props = { pictures: readonly PictureView[]; onChoose: (picture: PictureView) => void; space: string | undefined };

/** Pictures that were put in before, to take up again or throw away. */
export function Offered({ pictures, onChoose, space }: Props) {
  const queries = useQueryClient();
  const mayChange = useMayChange();
  const [asked, setAsked] = useState<PictureView>();
  const drop = useMutation({
    mutationFn: (picture: PictureView) => api.deletePicture(picture.id),
    onSettled: () => {
      queries.invalidateQueries({ queryKey: ["pictures"] });
      queries.invalidateQueries({ queryKey: ["limits"] });
    },
  });
  if (pictures.length === 0) return null;
  return (
    <section aria-labelledby="offered">
      <div className="mb-1.5 flex flex-wrap items-baseline gap-3">
        <h2 id="offered">Or one that was put in before</h2>
        {space && <span className="text-second">{space}</span>}
      </div>
      {drop.error && (
        <p role="alert" className="mb-1.5 text-measure">
          {drop.error.message}
        </p>
      )}
      <ul className="flex flex-wrap gap-3">
        {pictures.slice(0, 8).map((p) => (
          <li key={p.id} className="grid content-start gap-1">
            <button type="button" className="sheet w-[150px] cursor-pointer p-2 text-left" onClick={() => onChoose(p)}>
              <img
                src={pictureFile(p.id, "thumb")}
                alt=""
                className="mx-auto block h-[104px] max-w-full object-contain"
                loading="lazy"
              />
              <span className="mt-1 block text-[14px] leading-tight">{p.name}</span>
            </button>
            {mayChange && (
              <button
                type="button"
                className="link min-h-6 justify-self-start text-[13px]"
                aria-label={`Throw away ${p.name}`}
                onClick={() => setAsked(p)}
              >
                Throw away
              </button>
            )}
          </li>
        ))}
      </ul>
      <Confirm
        open={asked !== undefined}
        title={`Throw “${asked?.name ?? ""}” away?`}
        text="The picture goes for the whole team, and can't be brought back. Sketches that were read from it keep it here."
        yes="Throw it away"
        no="Keep it"
        onYes={() => asked && drop.mutate(asked)}
        onClose={() => setAsked(undefined)}
      />
    </section>
  );
}
