import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, newKey, type StashItemDoc, type StashItemView } from "@/api/client";
import type { StashById } from "./looks";

const FRESH = 30_000;

/** What is in the stash, as far as it is looked for. */
export function useStash(search = "", unit = "in") {
  return useQuery({
    queryKey: ["stash", search, unit],
    queryFn: () => api.stash(search, unit),
    placeholderData: keepPreviousData,
    staleTime: FRESH,
  });
}

const NOTHING: StashById = new Map();
/** Every page on the table asks: the map is made once an answer. */
const known = new WeakMap<readonly StashItemView[], StashById>();

/** The things of the stash by their ids. */
export function useStashById(): StashById {
  const items = useStash().data?.items;
  if (!items) return NOTHING;
  const map = known.get(items) ?? new Map(items.map((i) => [i.id, i]));
  known.set(items, map);
  return map;
}

/** What can be done with the stash; each looks at it again afterwards. */
export function useStashChanges() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: ["stash"] });
  const putAway = useMutation({
    mutationFn: ({ items, own }: { items: StashItemDoc[]; own: boolean }) => api.putAway(items, own, newKey()),
    onSuccess,
  });
  const change = useMutation({
    mutationFn: ({ thing, item, own }: { thing: StashItemView; item: StashItemDoc; own?: boolean }) =>
      api.changeStashItem(thing.id, thing.revision, item, own),
    onSuccess,
  });
  const takeOut = useMutation({ mutationFn: api.takeOutOfStash, onSuccess });
  return { putAway, change, takeOut };
}
