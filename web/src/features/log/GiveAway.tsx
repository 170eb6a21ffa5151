import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { api, newKey } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { Field } from "@/shared/ui/Field";

type Props = { page: string; name: string; pages: number; saved: boolean };

/** Her layout as a challenge sketch of its own, in the drawer: from there it goes out as a document, a drawing or on paper. */
export function GiveAway({ page, name, pages, saved }: Props) {
  const queries = useQueryClient();
  const [called, setCalled] = useState(`Sketch of ${name}`);
  const [folded, setFolded] = useState(false);
  const make = useMutation({
    mutationFn: () => api.sketchOfPage(page, { name: called.trim(), folded }, newKey()),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["sketches"] }),
  });
  return (
    <form
      aria-labelledby="give-away"
      className="sheet grid max-w-[34rem] gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        make.mutate();
      }}
    >
      <h2 id="give-away" className="text-[16px]">
        A sketch of this page, to give away
      </h2>
      <Field label="Called" value={called} maxLength={200} onChange={(e) => setCalled(e.target.value)} />
      {pages === 2 && (
        <label className="flex items-center gap-1.5">
          <input type="checkbox" checked={folded} onChange={(e) => setFolded(e.target.checked)} />
          folded to one page
        </label>
      )}
      <button
        type="submit"
        className="button justify-self-start"
        disabled={!saved || make.isPending || called.trim() === ""}
      >
        Put it into the drawer
      </button>
      {make.isError && <Failed error={make.error} />}
      {make.data && (
        <p role="status">
          It lies in the drawer:{" "}
          <Link to="/sketches/$sketchId" params={{ sketchId: make.data.id }} className="link">
            {make.data.name}
          </Link>
        </p>
      )}
    </form>
  );
}
