import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type GalleryMood } from "@/api/client";
import { useJobNews } from "@/shared/events/useJobNews";
import { useOnce } from "@/shared/query/useOnce";

/** A page's entries in the gallery, and the gallery itself. Events of their jobs bring news. */
export function useGallery(page: string, onSent: () => void) {
  const queries = useQueryClient();
  const entries = useQuery({ queryKey: ["gallery-entries", page], queryFn: () => api.galleryEntries(page) });
  const gallery = useQuery({ queryKey: ["gallery"], queryFn: api.gallery });
  const look = () => {
    queries.invalidateQueries({ queryKey: ["gallery-entries", page] });
    queries.invalidateQueries({ queryKey: ["gallery"] });
  };
  const jobs = (entries.data ?? []).map((e) => e.job);
  useJobNews(jobs, look);
  const enter = useOnce(
    (replaces: string | undefined, key) => api.enterInGallery(page, replaces, key),
    () => {
      onSent();
      look();
    },
  );
  const askAgain = useMutation({ mutationFn: (entry: string) => api.askGalleryAgain(entry), onSettled: look });
  const withdraw = useMutation({ mutationFn: (entry: string) => api.withdrawEntry(entry), onSettled: look });
  const setMood = useMutation({ mutationFn: (to: GalleryMood) => api.setGallery(to), onSettled: look });
  return { entries, gallery, enter, askAgain, withdraw, setMood };
}
