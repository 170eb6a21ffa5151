import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "@tanstack/react-router";
import { useForm } from "react-hook-form";
import { ApiError, api, fieldError, type MeView } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { Field } from "@/shared/ui/Field";
import { Notice } from "@/shared/ui/Notice";
import { Brand } from "./Brand";
import { useBecome, useMe } from "./useMe";

const ROLE: Record<string, string> = {
  lead: "as a lead",
  member: "as a member",
  guest: "as a guest, who may look",
};

/** A link that works once: into a team, or to be the first lead of a new server. */
export function JoinScreen() {
  const { token } = useParams({ from: "/join/$token" });
  const me = useMe();
  const become = useBecome();
  const navigate = useNavigate();
  const link = useQuery({ queryKey: ["link", token], queryFn: () => api.link(token), retry: false });
  const welcome = (now: MeView) => {
    become(now);
    navigate({ to: "/" });
  };
  const asMe = useMutation({ mutationFn: () => api.joinAsMe(token), onSuccess: welcome });
  return (
    <>
      <Brand />
      <main className="mx-auto grid max-w-[420px] gap-4 p-4 pt-10">
        {link.isPending && <Notice>Looking at the link…</Notice>}
        {link.isError &&
          (link.error instanceof ApiError && link.error.problem.status === 404 ? (
            <Failed
              error={new Error("This link has been used, taken back, or is too old. Ask for a new one.")}
              title="The link does not work"
            />
          ) : (
            <Failed error={link.error} onRetry={() => link.refetch()} />
          ))}
        {link.data && (
          <section className="sheet grid gap-3" aria-labelledby="join">
            <h2 id="join">{link.data.team ? `Join ${link.data.team}` : "Set up this server"}</h2>
            <p>
              {link.data.team
                ? `${link.data.made_by} lets you in ${ROLE[link.data.role] ?? ""}.`
                : "You are the first here: name your team, and yourself as its lead."}
            </p>
            {me.data?.id && link.data.team ? (
              <>
                <button type="button" className="button button-first justify-self-start" onClick={() => asMe.mutate()}>
                  Join as {me.data.name}
                </button>
                {asMe.isError && <p role="alert">{asMe.error.message}</p>}
              </>
            ) : (
              <>
                <JoinForm token={token} first={!link.data.team} onJoined={welcome} />
                {link.data.team && <KnownHere onSignedIn={become} />}
              </>
            )}
          </section>
        )}
      </main>
    </>
  );
}

/** Who has an account already signs in with it, and then joins as herself. */
function KnownHere({ onSignedIn }: { onSignedIn: (me: MeView) => void }) {
  const form = useForm({ defaultValues: { account: "", password: "" } });
  const signIn = useMutation({
    mutationFn: (given: { account: string; password: string }) => api.signIn(given.account, given.password),
    onSuccess: onSignedIn,
  });
  return (
    <details>
      <summary className="link">I have an account here</summary>
      <form className="mt-2 grid gap-3" onSubmit={form.handleSubmit((given) => signIn.mutate(given))}>
        <Field
          label="Name you sign in with"
          autoComplete="username"
          autoCapitalize="none"
          {...form.register("account", { required: true })}
        />
        <Field
          label="Its password"
          type="password"
          autoComplete="current-password"
          {...form.register("password", { required: true })}
        />
        {signIn.isError && (
          <p role="alert" className="text-measure">
            {signIn.error.message}
          </p>
        )}
        <button type="submit" className="button justify-self-start" disabled={signIn.isPending}>
          Sign in
        </button>
      </form>
    </details>
  );
}

type Given = { team: string; name: string; account: string; password: string };

function JoinForm({ token, first, onJoined }: { token: string; first: boolean; onJoined: (me: MeView) => void }) {
  const form = useForm<Given>({ defaultValues: { team: "", name: "", account: "", password: "" } });
  const join = useMutation({
    mutationFn: (given: Given) => api.join(token, { ...given, team: first ? given.team : null }),
    onSuccess: onJoined,
  });
  const { errors } = form.formState;
  const error = (field: keyof Given, missing: string) => (errors[field] ? missing : fieldError(join.error, field));
  const told = join.error instanceof ApiError && (join.error.problem.findings ?? []).length > 0;
  return (
    <form className="grid gap-3" onSubmit={form.handleSubmit((given) => join.mutate(given))}>
      {first && (
        <Field label="Team" error={error("team", "Name your team.")} {...form.register("team", { required: true })} />
      )}
      <Field
        label="Your name"
        autoComplete="name"
        error={error("name", "Type your name.")}
        {...form.register("name", { required: true })}
      />
      <Field
        label="Name to sign in with"
        autoComplete="username"
        autoCapitalize="none"
        error={error("account", "Choose a name to sign in with.")}
        help="Letters and digits, without spaces."
        {...form.register("account", { required: true })}
      />
      <Field
        label="Password"
        type="password"
        autoComplete="new-password"
        error={error("password", "Choose a password.")}
        help="10 characters or more; a few plain words do well."
        {...form.register("password", { required: true })}
      />
      {join.isError && !told && (
        <p role="alert" className="text-measure">
          {join.error.message}
        </p>
      )}
      <button type="submit" className="button button-first justify-self-start" disabled={join.isPending}>
        {join.isPending ? "Joining…" : "Join the team"}
      </button>
    </form>
  );
}
