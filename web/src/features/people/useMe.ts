import { type Query, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type MeView } from "@/api/client";
import { setCurrentTeam } from "@/api/team";

/** Who is signed in. */
export function useMe() {
  return useQuery({ queryKey: ["me"], queryFn: api.me, staleTime: 60_000 });
}

/** Whether she may change the team's things: a guest may look. */
export function useMayChange(): boolean {
  return useMe().data?.role !== "guest";
}

/** Takes in who is signed in now; all that was fetched as somebody else, or in another team, is dropped. */
export function useBecome(): (me: MeView) => void {
  const queries = useQueryClient();
  return (me) => {
    setCurrentTeam(me.team?.id);
    queries.setQueryData(["me"], me);
    // What is on screen is asked for anew, as her; the rest goes.
    const ofBefore = { predicate: (q: Query) => q.queryKey[0] !== "me" };
    queries.removeQueries({ ...ofBefore, type: "inactive" });
    queries.resetQueries(ofBefore);
  };
}
