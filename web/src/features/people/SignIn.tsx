import { useMutation } from "@tanstack/react-query";
import { useForm } from "react-hook-form";
import { api } from "@/api/client";
import { Field } from "@/shared/ui/Field";
import { Brand } from "./Brand";
import { useBecome } from "./useMe";

/** The door. */
export function SignIn({ demo }: { demo: boolean }) {
  const become = useBecome();
  const signIn = useMutation({
    mutationFn: (given: { account: string; password: string }) => api.signIn(given.account, given.password),
    onSuccess: become,
  });
  const lookAround = useMutation({ mutationFn: api.signInToDemo, onSuccess: become });
  const form = useForm({ defaultValues: { account: "", password: "" } });
  const { errors } = form.formState;
  return (
    <>
      <Brand />
      <main className="mx-auto grid max-w-[420px] gap-4 p-4 pt-10">
        {demo && (
          <section aria-labelledby="demo" className="sheet grid gap-2">
            <h2 id="demo">Look around</h2>
            <p>
              A small paper club documents a kite festival on a winter tidal flat. Everything in it is made up, and
              yours to change.
            </p>
            <button
              type="button"
              className="button button-first justify-self-start"
              disabled={lookAround.isPending}
              onClick={() => lookAround.mutate()}
            >
              Try it as Wren
            </button>
            {lookAround.isError && <p role="alert">{lookAround.error.message}</p>}
          </section>
        )}
        <form
          className="sheet grid gap-3"
          aria-labelledby="sign-in"
          onSubmit={form.handleSubmit((given) => signIn.mutate(given))}
        >
          <h2 id="sign-in">Sign in</h2>
          <Field
            label="Name you sign in with"
            autoComplete="username"
            autoCapitalize="none"
            error={errors.account && "Type the name that you chose when you joined."}
            {...form.register("account", { required: true })}
          />
          <Field
            label="Password"
            type="password"
            autoComplete="current-password"
            error={errors.password && "Type your password."}
            {...form.register("password", { required: true })}
          />
          {signIn.isError && (
            <p role="alert" className="text-measure">
              {signIn.error.message}
            </p>
          )}
          <button type="submit" className="button button-first justify-self-start" disabled={signIn.isPending}>
            {signIn.isPending ? "Signing in…" : "Sign in"}
          </button>
          <p className="text-second">No account yet? A lead of your team can make a link that lets you in.</p>
        </form>
      </main>
    </>
  );
}
