import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, newKey, type PictureView } from "@/api/client";

/** The pictures that were put in last, and putting another one in. */
export function usePictures(onPicture: (picture: PictureView) => void) {
  const queries = useQueryClient();
  const known = useQuery({ queryKey: ["pictures"], queryFn: () => api.pictures() });
  const add = useMutation({
    mutationFn: (file: File) => api.addPicture(file, file.name.slice(0, 200), newKey()),
    onSuccess: (picture) => {
      queries.invalidateQueries({ queryKey: ["pictures"] });
      onPicture(picture as PictureView);
    },
  });
  return { known: (known.data ?? []) as readonly PictureView[], add };
}
