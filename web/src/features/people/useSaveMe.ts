import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type DefaultsDoc, type MeView } from "@/api/client";
import { useMe } from "./useMe";

/** Who is signed in, and how her name and defaults are saved. */
export function useSaveMe() {
  const queries = useQueryClient();
  const me = useMe().data;
  // One after the other, each upon what the last one made: a choice made before the answer to another must not undo it.
  const save = useMutation({
    mutationKey: ["me"],
    scope: { id: "me" },
    mutationFn: (given: { name: string; defaults: DefaultsDoc }) => api.changeMe(given.name, given.defaults),
    onMutate: (given) => queries.setQueryData<MeView>(["me"], (now) => now && { ...now, defaults: given.defaults }),
    onSuccess: (now) => {
      if (queries.isMutating({ mutationKey: ["me"] }) === 1) queries.setQueryData(["me"], now);
    },
    onError: () => queries.invalidateQueries({ queryKey: ["me"] }),
  });
  return { me, save };
}
