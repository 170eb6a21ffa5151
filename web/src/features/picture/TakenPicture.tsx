import { type PictureView, pictureFile } from "@/api/client";
import { type Corners, whole } from "./corners";
import { PictureCorners } from "./PictureCorners";

type Props = {
  picture: PictureView;
  size: { w: number; h: number };
  corners: Corners | undefined;
  finished: boolean;
  onChange: (corners: Corners) => void;
};

/** The picture as it was taken, with the page's corners. */
export function TakenPicture({ picture, size, corners, finished, onChange }: Props) {
  const says = !corners
    ? "Metrosk looks for the page itself. Drag the corners only if it misses."
    : finished
      ? "The page is taken between these corners. Drag one, or move it with the arrow keys."
      : "The page is read between these corners. Drag one, or move it with the arrow keys, and read again.";
  return (
    <div>
      <PictureCorners
        url={pictureFile(picture.id, "view")}
        size={size}
        corners={corners ?? whole(size)}
        onChange={onChange}
      />
      <p className="mt-1 text-second">{says}</p>
    </div>
  );
}
