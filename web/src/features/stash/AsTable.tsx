import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { api, newKey, takeAway } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { Menu } from "@/shared/ui/Menu";

/** The stash as a table: taken out, and brought in again. */
export function AsTable({ mayChange }: { mayChange: boolean }) {
  const queries = useQueryClient();
  const field = useRef<HTMLInputElement>(null);
  const [rows, setRows] = useState<number>();
  const bring = useMutation({
    mutationFn: (file: File) => api.importStash(file, newKey()),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["stash"] }),
  });
  const done = bring.data;
  return (
    <>
      <Menu
        label="More for the stash"
        items={[
          { label: "Take it all out as a table (CSV)", href: takeAway.stash() },
          mayChange && { label: "Bring a table in (CSV)", onSelect: () => field.current?.click() },
        ]}
      />
      <input
        ref={field}
        type="file"
        accept=".csv,.tsv,.txt,text/csv"
        aria-label="A table to bring in"
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (!file) return;
          setRows(undefined);
          void file.text().then((text) => setRows(text.trim().split("\n").length - 1));
          bring.mutate(file);
          e.target.value = "";
        }}
      />
      {bring.isPending && (
        <label className="flex w-full items-center gap-2 text-second">
          {rows === undefined
            ? "Bringing the table in…"
            : `Bringing in ${rows === 1 ? "one row" : `${rows} rows`}, all or none…`}
          <progress className="h-2 min-w-32 flex-1 accent-ink" />
        </label>
      )}
      {bring.isError && (
        <div className="w-full">
          <Failed title="Nothing of the table was brought in" error={bring.error} />
        </div>
      )}
      {done && (
        <p role="status" className="w-full text-[13px]">
          {`${done.new} put away, ${done.changed} written anew.`}
          {done.ignored.length > 0 && ` These columns mean nothing here: ${done.ignored.join(", ")}.`}
        </p>
      )}
    </>
  );
}
