import { useMutation } from "@tanstack/react-query";
import { Link, Outlet, useNavigate } from "@tanstack/react-router";
import { DropdownMenu } from "radix-ui";
import { api } from "@/api/client";
import { useBecome, useMe } from "@/features/people/useMe";

const DOORS = [
  { to: "/", label: "The table" },
  { to: "/season", label: "The season" },
  { to: "/drawer", label: "Sketch drawer" },
  { to: "/stash", label: "Stash" },
  { to: "/look-back", label: "Look back" },
  { to: "/team", label: "Team" },
] as const;

/** The house's header: its doors, and who is here in which team. */
export function Shell() {
  return (
    <>
      <header className="flex flex-wrap items-center gap-x-5 gap-y-1 px-[18px] pt-3 pb-2">
        <p className="font-bold font-heading text-[26px] leading-none">Metrosk</p>
        <nav aria-label="House" className="flex flex-wrap gap-x-4">
          {DOORS.map((d) => (
            <Link
              key={d.to}
              to={d.to}
              className="py-1 font-semibold text-second hover:text-ink"
              activeProps={{ className: "!text-ink underline decoration-2 underline-offset-4" }}
              activeOptions={{ exact: true }}
            >
              {d.label}
            </Link>
          ))}
        </nav>
        <Link to="/drawer" className="button button-first ml-auto">
          Start a page
        </Link>
        <Person />
      </header>
      <Outlet />
    </>
  );
}

const ITEM =
  "cursor-pointer rounded-[2px] px-2.5 py-1.5 text-left outline-none data-highlighted:bg-ink data-highlighted:text-sheet";

function Person() {
  const me = useMe().data;
  const become = useBecome();
  const navigate = useNavigate();
  const choose = useMutation({
    mutationFn: api.chooseTeam,
    onSuccess: (now) => {
      become(now);
      navigate({ to: "/" });
    },
  });
  const out = useMutation({ mutationFn: api.signOut, onSuccess: () => window.location.assign("/") });
  if (!me?.name) return null;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button">
        {me.name}, {me.team?.name}
        <svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true">
          <path d="M0 0H9L4.5 6Z" fill="currentColor" />
        </svg>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="sheet z-20 grid min-w-[14rem] p-1 shadow-lg">
          <DropdownMenu.Item className={ITEM} onSelect={() => navigate({ to: "/me" })}>
            My defaults and password
          </DropdownMenu.Item>
          {me.teams
            .filter((t) => t.id !== me.team?.id)
            .map((t) => (
              <DropdownMenu.Item key={t.id} className={ITEM} onSelect={() => choose.mutate(t.id)}>
                Go to {t.name}
              </DropdownMenu.Item>
            ))}
          <DropdownMenu.Item className={ITEM} onSelect={() => out.mutate()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
