import { type PictureView, pictureFile } from "@/api/client";

type Props = { pictures: readonly PictureView[]; onChoose: (picture: PictureView) => void };

/** Pictures that were put in before, to take up again. */
export function Offered({ pictures, onChoose }: Props) {
  if (pictures.length === 0) return null;
  return (
    <section aria-labelledby="offered">
      <h2 id="offered" className="mb-1.5">
        Or one that was put in before
      </h2>
      <ul className="flex flex-wrap gap-3">
        {pictures.slice(0, 8).map((p) => (
          <li key={p.id}>
            <button type="button" className="sheet w-[150px] cursor-pointer p-2 text-left" onClick={() => onChoose(p)}>
              <img
                src={pictureFile(p.id, "thumb")}
                alt=""
                className="mx-auto block h-[104px] max-w-full object-contain"
                loading="lazy"
              />
              <span className="mt-1 block text-[14px] leading-tight">{p.name}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
