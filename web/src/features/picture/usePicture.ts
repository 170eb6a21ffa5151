import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type PictureView } from "@/api/client";
import { useOnce } from "@/shared/query/useOnce";

const megabytes = (bytes: number) => `${Math.round(bytes / 1024 / 1024)} MB`;

/** The pictures that were put in last, and putting another one in. What may be put in is told before, and held to before anything is sent. */
export function usePictures(onPicture: (picture: PictureView) => void) {
  const queries = useQueryClient();
  const known = useQuery({ queryKey: ["pictures"], queryFn: () => api.pictures() });
  const limits = useQuery({ queryKey: ["limits"], queryFn: api.limits, staleTime: 60_000 }).data;
  const add = useOnce(
    async (file: File, key) => {
      if (limits && file.size > limits.file_bytes) {
        throw new Error(
          `${file.name} has ${megabytes(file.size)}; pictures of up to ${megabytes(limits.file_bytes)} can be put in.`,
        );
      }
      return (await api.addPicture(file, file.name.slice(0, 200), key)) as PictureView;
    },
    (picture) => {
      queries.invalidateQueries({ queryKey: ["pictures"] });
      queries.invalidateQueries({ queryKey: ["limits"] });
      onPicture(picture);
    },
  );
  const says = limits
    ? `PNG, JPEG or WebP, up to ${megabytes(limits.file_bytes)} and ${Math.round(limits.picture_pixels / 1e6)} million pixels, at least ${limits.picture_side} a side.`
    : "PNG, JPEG or WebP.";
  const space =
    limits && `${megabytes(limits.team_bytes_used)} of your team's ${megabytes(limits.team_bytes)} are used.`;
  return { known: (known.data ?? []) as readonly PictureView[], add, limits: says, space };
}
