import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, newKey, type StashItemDoc, type StashItemView } from "@/api/client";
import type { StashById } from "./looks";

const FRESH = 30_000;

/** What is in the stash, as far as it is looked for; a long answer comes in parts, the next one when it is asked for. */
export function useStash(search = "", unit = "in") {
  const found = useInfiniteQuery({
    queryKey: ["stash", search, unit],
    queryFn: ({ pageParam }) => api.stash(search, unit, pageParam),
    initialPageParam: 0,
    getNextPageParam: (last, parts) =>
      last.more ? parts.reduce((sum, part) => sum + part.items.length, 0) : undefined,
    placeholderData: keepPreviousData,
    staleTime: FRESH,
  });
  const items = useMemo(() => found.data?.pages.flatMap((part) => part.items), [found.data]);
  return { ...found, items };
}

/** All that is in the stash, however much it is. */
async function everything(): Promise<StashItemView[]> {
  const items: StashItemView[] = [];
  for (;;) {
    const part = await api.stash("", "in", items.length);
    items.push(...part.items);
    if (!part.more || part.items.length === 0) return items;
  }
}

const NOTHING: StashById = new Map();
/** Every page on the table asks: the map is made once an answer. */
const known = new WeakMap<readonly StashItemView[], StashById>();

/** The things of the stash by their ids. */
export function useStashById(): StashById {
  const items = useQuery({ queryKey: ["stash", "everything"], queryFn: everything, staleTime: FRESH }).data;
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
