import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, fieldError, type MeView } from "@/api/client";
import { Ask } from "@/shared/ui/Ask";
import { Brand } from "./Brand";
import { useBecome } from "./useMe";

/** Somebody who is in no team now: an invitation lets her in, or she makes a team of her own. */
export function NoTeam({ me }: { me: MeView }) {
  const [asks, setAsks] = useState(false);
  const become = useBecome();
  const make = useMutation({ mutationFn: api.makeTeam, onSuccess: become });
  const out = useMutation({ mutationFn: api.signOut, onSuccess: () => window.location.assign("/") });
  return (
    <>
      <Brand />
      <main className="mx-auto grid max-w-[420px] gap-4 p-4 pt-10">
        <section className="sheet grid gap-3" aria-labelledby="no-team">
          <h2 id="no-team">You are in no team now</h2>
          <p>
            {me.name}, open the link of an invitation to join one. A lead of a team can make it for you. What you made
            before is still with the team that you made it in.
          </p>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="button button-first" onClick={() => setAsks(true)}>
              Make a team
            </button>
            <button type="button" className="button" onClick={() => out.mutate()}>
              Sign out
            </button>
          </div>
        </section>
      </main>
      {asks && (
        <Ask
          title="Make a team"
          label="Its name"
          value=""
          yes="Make it"
          error={fieldError(make.error, "name")}
          onYes={(name) => make.mutate(name)}
          onClose={() => setAsks(false)}
        />
      )}
    </>
  );
}
