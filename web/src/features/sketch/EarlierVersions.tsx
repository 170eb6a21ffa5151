import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type SketchDoc } from "@/api/client";

type Props = { id: string; revision: number; onTake: ((sketch: SketchDoc) => void) | undefined };

/** What a sketch was before: each version can be looked at again, by taking it up and undoing. */
export function EarlierVersions({ id, revision, onTake }: Props) {
  const [open, setOpen] = useState(false);
  const versions = useQuery({
    queryKey: ["sketch-revisions", id, revision],
    queryFn: () => api.sketchRevisions(id),
    enabled: open,
  });
  const take = useMutation({
    mutationFn: (of: number) => api.sketchRevision(id, of),
    onSuccess: (sketch) => onTake?.(sketch),
  });
  if (revision < 2) return null;
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="link">{revision - 1} earlier</summary>
      {versions.isError && <p role="alert">{versions.error.message}</p>}
      {take.isError && <p role="alert">{take.error.message}</p>}
      <ul>
        {versions.data
          ?.filter((v) => v.revision !== revision)
          .map((v) => (
            <li key={v.revision} className="flex items-center gap-2 border-hairline border-t py-1">
              <span className="flex-1">
                {v.revision}: {v.reason}, {v.author},{" "}
                {new Date(v.made_at).toLocaleString("en", { dateStyle: "medium", timeStyle: "short" })}
              </span>
              {onTake && (
                <button type="button" className="button" onClick={() => take.mutate(v.revision)}>
                  Take it up
                </button>
              )}
            </li>
          ))}
      </ul>
    </details>
  );
}
