import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useState } from "react";
import { api, fieldError, newKey, type PageChange, takeAway } from "@/api/client";
import { useMayChange } from "@/features/people/useMe";
import { Ask } from "@/shared/ui/Ask";
import { Menu } from "@/shared/ui/Menu";

type Thing = { id: string; name: string; due?: string | null; finished: boolean; archived: boolean };

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
  const change = useMutation({ mutationFn: (c: PageChange) => api.changePage(page.id, c), onSuccess: refresh });
  const copy = useMutation({
    mutationFn: () => api.copyPage(page.id, newKey()),
    onSuccess: (made) => {
      refresh();
      navigate({ to: "/pages/$pageId/$station", params: { pageId: (made as { id: string }).id, station: "fit" } });
    },
  });
  const sheet = () => navigate({ to: "/pages/$pageId/sheet", params: { pageId: page.id } });
  return (
    <>
      <Menu
        label={`More for ${page.name}`}
        small={small}
        items={[
          mayChange && { label: "Rename", onSelect: () => setAsks("name") },
          mayChange && { label: "Due date", onSelect: () => setAsks("due") },
          mayChange && { label: "Copy", onSelect: () => copy.mutate() },
          { label: "Measurement sheet", onSelect: sheet },
          { label: "True-scale drawing (SVG)", href: takeAway.drawing(page.id) },
          { label: "Layout (JSON)", href: takeAway.layout(page.id) },
          mayChange && {
            label: page.finished ? "Back to the making" : "It is finished",
            onSelect: () => change.mutate({ finished: !page.finished }),
          },
          mayChange && {
            label: page.archived ? "Take out again" : "Put away",
            onSelect: () => change.mutate({ archived: !page.archived }),
          },
        ]}
      />
      {change.isError && !asks && <p role="alert">{change.error.message}</p>}
      {copy.isError && <p role="alert">{copy.error.message}</p>}
      {asks === "name" && (
        <Ask
          title="Rename the page"
          label="Name"
          value={page.name}
          yes="Rename"
          error={fieldError(change.error, "name")}
          onYes={(name) => change.mutate({ name })}
          onClose={() => setAsks(undefined)}
        />
      )}
      {asks === "due" && (
        <Ask
          title="By when is it to be done?"
          label="Day, such as 2026-12-03; empty for none"
          value={page.due ?? ""}
          yes="Set"
          error={fieldError(change.error, "due")}
          onYes={(due) => change.mutate({ due: due.trim() === "" ? null : due.trim() })}
          onClose={() => setAsks(undefined)}
        />
      )}
    </>
  );
}
