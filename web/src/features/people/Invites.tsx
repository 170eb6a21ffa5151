import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type InviteView, type Role } from "@/api/client";
import { ROLES } from "./TeamScreen";

/** A link that works once, to be sent to somebody. */
export function LinkToSend({ says, link }: { says: string; link: string }) {
  return (
    <div role="status" className="grid gap-1 rounded-[3px] border border-pin p-2">
      <p>{says}</p>
      <p className="flex flex-wrap items-center gap-2">
        <code className="break-all">{link}</code>
        <button type="button" className="button" onClick={() => navigator.clipboard?.writeText(link)}>
          Copy
        </button>
      </p>
    </div>
  );
}

/** Links that let one person in each, once. */
export function Invites({ invites }: { invites: readonly InviteView[] }) {
  const queries = useQueryClient();
  const [role, setRole] = useState<Role>("member");
  const refresh = () => queries.invalidateQueries({ queryKey: ["team"] });
  const invite = useMutation({ mutationFn: api.invite, onSuccess: refresh });
  const takeBack = useMutation({ mutationFn: api.takeInviteBack, onSuccess: refresh });
  const error = invite.error ?? takeBack.error;
  const link = invite.data?.link ? window.location.origin + invite.data.link : undefined;
  return (
    <section aria-labelledby="invites" className="sheet grid gap-2">
      <h2 id="invites">Invitations</h2>
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          <span className="text-second">Invite one person as a</span>
          <select className="field py-1" value={role} onChange={(e) => setRole(e.target.value as Role)}>
            {ROLES.map((r) => (
              <option key={r.value} value={r.value}>
                {r.label}
              </option>
            ))}
          </select>
        </label>
        <button
          type="button"
          className="button button-first"
          disabled={invite.isPending}
          onClick={() => invite.mutate(role)}
        >
          Make a link
        </button>
      </div>
      {error && (
        <p role="alert" className="text-measure">
          {error.message}
        </p>
      )}
      {link && (
        <LinkToSend says="Send her this link. It works once, within seven days, and is shown only now:" link={link} />
      )}
      {invites.length === 0 && <p className="text-second">No invitation is open.</p>}
      <ul>
        {invites.map((i) => (
          <li key={i.id} className="flex items-center gap-3 border-hairline border-t py-1.5">
            <span>
              a {i.role}, by {i.made_by}, until{" "}
              {new Date(i.expires_at).toLocaleDateString("en", { dateStyle: "medium" })}
            </span>
            <button type="button" className="button ml-auto" onClick={() => takeBack.mutate(i.id)}>
              Take back
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
