import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { api } from "@/api/client";
import { useOnce } from "@/shared/query/useOnce";

/** The team's season, as she who looks sees it. */
export function useSeason() {
  return useQuery({ queryKey: ["season"], queryFn: api.season });
}

/** What is another once a call, or who takes part in it, has changed. */
export function useRefreshCalls() {
  const queries = useQueryClient();
  return () => {
    for (const queryKey of [["season"], ["calls"], ["pages"]]) queries.invalidateQueries({ queryKey });
  };
}

/** Taking a call and giving it back. */
export function useTaking() {
  const refresh = useRefreshCalls();
  const take = useMutation({ mutationFn: (call: string) => api.takeCall(call), onSuccess: refresh });
  const giveBack = useMutation({ mutationFn: (call: string) => api.giveCallBack(call), onSuccess: refresh });
  return { take, giveBack, error: take.error ?? giveBack.error };
}

/** Beginning her page for a call: it opens at once. */
export function useBegin() {
  const refresh = useRefreshCalls();
  const navigate = useNavigate();
  return useOnce(
    ({ call, sketch }: { call: string; sketch?: string }, key) => api.startForCall(call, sketch ? { sketch } : {}, key),
    (page) => {
      refresh();
      navigate({ to: "/pages/$pageId/$station", params: { pageId: page.id, station: "call" } });
    },
  );
}
