import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "@tanstack/react-router";
import { useForm } from "react-hook-form";
import { ApiError, api, fieldError } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { Field } from "@/shared/ui/Field";
import { Notice } from "@/shared/ui/Notice";
import { Brand } from "./Brand";
import { useBecome } from "./useMe";

/** A link with which a person sets a new password, once. */
export function PasswordScreen() {
  const { token } = useParams({ from: "/password/$token" });
  const become = useBecome();
  const navigate = useNavigate();
  const link = useQuery({ queryKey: ["password-link", token], queryFn: () => api.passwordLink(token), retry: false });
  const form = useForm({ defaultValues: { password: "" } });
  const save = useMutation({
    mutationFn: ({ password }: { password: string }) => api.setPassword(token, password),
    onSuccess: (me) => {
      become(me);
      navigate({ to: "/" });
    },
  });
  const gone = link.error instanceof ApiError && link.error.problem.status === 404;
  return (
    <>
      <Brand />
      <main className="mx-auto grid max-w-[420px] gap-4 p-4 pt-10">
        {link.isPending && <Notice>Looking at the link…</Notice>}
        {link.isLoadingError && gone && (
          <Failed
            error={new Error("This link has been used, or is too old. Ask a lead of your team for a new one.")}
            title="The link does not work"
          />
        )}
        {link.isLoadingError && !gone && <Failed error={link.error} onRetry={() => link.refetch()} />}
        {link.data && (
          <form
            className="sheet grid gap-3"
            aria-labelledby="new-password"
            onSubmit={form.handleSubmit((given) => save.mutate(given))}
          >
            <h2 id="new-password">A new password for {link.data.name}</h2>
            <p>
              You sign in as <strong>{link.data.account}</strong>. Wherever you are signed in now, you sign in again.
            </p>
            <Field
              label="New password"
              type="password"
              autoComplete="new-password"
              help="10 characters or more; a few plain words do well."
              error={form.formState.errors.password ? "Choose a password." : fieldError(save.error, "password")}
              {...form.register("password", { required: true })}
            />
            {save.isError && !fieldError(save.error, "password") && (
              <p role="alert" className="text-measure">
                {save.error.message}
              </p>
            )}
            <button type="submit" className="button button-first justify-self-start" disabled={save.isPending}>
              Save and sign in
            </button>
          </form>
        )}
      </main>
    </>
  );
}
