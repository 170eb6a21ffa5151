import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { ApiError, api, fieldError, type PageChange, type PageView, takeAway } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { useOnce } from "@/shared/query/useOnce";
import { Ask } from "@/shared/ui/Ask";
import { Menu } from "@/shared/ui/Menu";

type Thing = Pick<PageView, "id" | "name" | "due" | "finished" | "archived" | "details_revision">;
type Change = Omit<PageChange, "details_revision">;

const dueText = (due: string | null | undefined) => (due ? `due ${due}` : "without a due date");

/** What can be done with a page as a whole. */
export function PageMenu({ page, small = false }: { page: Thing; small?: boolean }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const mayChange = useMayChange();
  const [asks, setAsks] = useState<"name" | "due">();
  const refresh = () => {
    setAsks(undefined);
    queries.invalidateQueries({ queryKey: ["pages"] });
    queries.invalidateQueries({ queryKey: ["page", page.id] });
  };
  // Somebody else may have changed them meanwhile: what she sees then is theirs, and hers is still typed in.
  const [theirs, setTheirs] = useState<Thing>();
  const now = theirs ?? page;
  const change = useMutation({
    mutationFn: (c: Change) => api.changePage(page.id, { ...c, details_revision: now.details_revision }),
    onSuccess: () => {
      setTheirs(undefined);
      refresh();
    },
    onError: (error) => {
      const newest = error instanceof ApiError && error.problem.type === "stale-details" && error.problem.newest;
      if (newest) setTheirs(newest as PageView);
    },
  });
  const meanwhile =
    theirs &&
    `Meanwhile it was changed: it is called “${theirs.name}”, ${dueText(theirs.due)}. Set yours all the same?`;
  const copy = useOnce(
    (id: string, key) => api.copyPage(id, key),
    (made) => {
      refresh();
      navigate({ to: "/pages/$pageId/$station", params: { pageId: (made as { id: string }).id, station: "fit" } });
    },
  );
  const sheet = () => navigate({ to: "/pages/$pageId/sheet", params: { pageId: page.id } });
  return (
    <>
      <Menu
        label={`More for ${page.name}`}
        small={small}
        items={[
          mayChange && { label: "Rename", onSelect: () => setAsks("name") },
          mayChange && { label: "Due date", onSelect: () => setAsks("due") },
          mayChange && { label: "Copy", onSelect: () => copy.mutate(page.id) },
          { label: "Measurement sheet", onSelect: sheet },
          { label: "True-scale drawing (SVG)", href: takeAway.drawing(page.id) },
          { label: "Layout (JSON)", href: takeAway.layout(page.id) },
          mayChange && {
            label: page.finished ? "Mark as unfinished" : "Mark as finished",
            onSelect: () => change.mutate({ finished: !page.finished }),
          },
          mayChange && {
            label: page.archived ? "Bring back to the table" : "Archive",
            onSelect: () => change.mutate({ archived: !page.archived }),
          },
        ]}
      />
      {change.isError && !asks && <p role="alert">{meanwhile ?? change.error.message}</p>}
      {copy.isError && <p role="alert">{copy.error.message}</p>}
      {asks === "name" && (
        <Ask
          title="Rename the page"
          label="Name"
          value={page.name}
          yes="Rename"
          error={meanwhile ?? fieldError(change.error, "name")}
          onYes={(name) => change.mutate({ name })}
          onClose={() => setAsks(undefined)}
        />
      )}
      {asks === "due" && (
        <Ask
          title="By when is it to be done?"
          label="Day (leave it empty for none)"
          type="date"
          value={page.due ?? ""}
          yes="Set due date"
          error={meanwhile ?? fieldError(change.error, "due")}
          onYes={(due) => change.mutate({ due: due.trim() === "" ? null : due.trim() })}
          onClose={() => setAsks(undefined)}
        />
      )}
    </>
  );
}
