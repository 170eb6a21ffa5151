import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { api, fieldError, type Role, type TeamPeople, takeAway } from "@/api/client";
import { Ask } from "@/shared/ui/Ask";
import { Confirm } from "@/shared/ui/Confirm";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";
import { Invites, LinkToSend } from "./Invites";
import { useBecome, useMe } from "./useMe";

export const ROLES: readonly { value: Role; label: string; says: string }[] = [
  { value: "lead", label: "lead", says: "can also invite people, change roles and remove people" },
  { value: "member", label: "member", says: "can make and change pages" },
  { value: "guest", label: "guest", says: "can look and download" },
];

/** The team: who is in it in which role, and, for a lead, who is let in. */
export function TeamScreen() {
  const team = useQuery({ queryKey: ["team"], queryFn: api.team });
  const lead = useMe().data?.role === "lead";
  if (team.isLoadingError) return <Failed error={team.error} onRetry={() => team.refetch()} />;
  if (!team.data) {
    return (
      <main className="p-[18px]">
        <Notice>Fetching the team…</Notice>
      </main>
    );
  }
  return (
    <main className="grid max-w-[60rem] gap-4 p-[18px] pt-2">
      <Heading team={team.data} lead={lead} />
      <People team={team.data} lead={lead} />
      {lead && <Invites invites={team.data.invites} />}
      <section aria-labelledby="moving" className="sheet grid gap-2">
        <h2 id="moving">More than one team</h2>
        <p>You can be in several teams; what belongs to one is not seen in the other.</p>
        <MakeTeam />
        {lead && (
          <>
            <h2>Your data</h2>
            <p>
              All sketches and pages of this team, with every version of each page, as one archive of open documents.
            </p>
            <a className="button justify-self-start" href={takeAway.team()} download>
              Download everything (zip)
            </a>
          </>
        )}
      </section>
    </main>
  );
}

function Heading({ team, lead }: { team: TeamPeople; lead: boolean }) {
  const queries = useQueryClient();
  const [asks, setAsks] = useState(false);
  const rename = useMutation({
    mutationFn: api.renameTeam,
    onSuccess: () => {
      setAsks(false);
      queries.invalidateQueries({ queryKey: ["team"] });
      queries.invalidateQueries({ queryKey: ["me"] });
    },
  });
  return (
    <div className="flex items-center gap-3">
      <h1 className="text-[20px]">{team.name}</h1>
      {lead && (
        <button type="button" className="button" onClick={() => setAsks(true)}>
          Rename
        </button>
      )}
      {asks && (
        <Ask
          title="Rename the team"
          label="Name"
          value={team.name}
          yes="Rename"
          error={fieldError(rename.error, "name")}
          onYes={(name) => rename.mutate(name)}
          onClose={() => setAsks(false)}
        />
      )}
    </div>
  );
}

function People({ team, lead }: { team: TeamPeople; lead: boolean }) {
  const queries = useQueryClient();
  const me = useMe().data;
  const [leaving, setLeaving] = useState<TeamPeople["people"][number]>();
  const refresh = () => {
    queries.invalidateQueries({ queryKey: ["team"] });
    queries.invalidateQueries({ queryKey: ["me"] });
  };
  const role = useMutation({
    mutationFn: (given: { id: string; role: Role }) => api.changeRole(given.id, given.role),
    onSettled: refresh,
  });
  const remove = useMutation({ mutationFn: api.removeMember, onSettled: refresh });
  const link = useMutation({ mutationFn: api.makePasswordLink });
  const forWhom = team.people.find((p) => p.id === link.variables)?.name;
  const error = role.error ?? remove.error ?? link.error;
  return (
    <section aria-labelledby="people" className="sheet overflow-x-auto">
      <h2 id="people">People</h2>
      {error && (
        <p role="alert" className="text-measure">
          {error.message}
        </p>
      )}
      <table className="mt-1 w-full border-collapse">
        <thead>
          <tr className="text-second">
            {["name", "signs in as", "role", ""].map((h) => (
              <th key={h} scope="col" className="py-1 text-left font-normal">
                {h || <span className="sr-only">remove</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {team.people.map((p) => (
            <tr key={p.id} className="border-hairline border-t">
              <th scope="row" className="py-1.5 text-left font-semibold">
                {p.name}
                {p.id === me?.id && <span className="font-normal text-second"> (you)</span>}
              </th>
              <td>{p.account}</td>
              <td>
                {lead ? (
                  <select
                    aria-label={`Role of ${p.name}`}
                    className="field py-1"
                    value={p.role}
                    onChange={(e) => role.mutate({ id: p.id, role: e.target.value as Role })}
                  >
                    {ROLES.map((r) => (
                      <option key={r.value} value={r.value}>
                        {r.label}
                      </option>
                    ))}
                  </select>
                ) : (
                  p.role
                )}
                <span className="ml-2 text-second">{ROLES.find((r) => r.value === p.role)?.says}</span>
              </td>
              <td className="text-right">
                {lead && p.id !== me?.id && (
                  <button type="button" className="button mr-1.5" onClick={() => link.mutate(p.id)}>
                    New password
                  </button>
                )}
                {lead && (
                  <button type="button" className="button" onClick={() => setLeaving(p)}>
                    Remove
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {link.data?.link && (
        <LinkToSend
          says={`Send ${forWhom} this link. With it she sets a new password, once, within two days; it is shown only now:`}
          link={window.location.origin + link.data.link}
        />
      )}
      <Confirm
        open={leaving !== undefined}
        title={`Remove ${leaving?.name} from the team?`}
        text="What she made stays. She can come in again only with a new invitation."
        yes="Remove"
        onYes={() => leaving && remove.mutate(leaving.id)}
        onClose={() => setLeaving(undefined)}
      />
    </section>
  );
}

function MakeTeam() {
  const [asks, setAsks] = useState(false);
  const become = useBecome();
  const navigate = useNavigate();
  const make = useMutation({
    mutationFn: api.makeTeam,
    onSuccess: (me) => {
      become(me);
      navigate({ to: "/" });
    },
  });
  return (
    <>
      <button type="button" className="button justify-self-start" onClick={() => setAsks(true)}>
        Make another team
      </button>
      {asks && (
        <Ask
          title="Make another team"
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
