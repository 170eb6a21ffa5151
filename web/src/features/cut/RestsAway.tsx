import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useRef } from "react";
import { api, type CutSheetDoc, newKey, type StashItemDoc } from "@/api/client";
import type { StashById } from "@/features/stash/looks";
import type { Unit } from "@/shared/lengths/length";
import { Failed } from "@/shared/ui/Failed";
import { thingOf } from "./model";

type Props = { sheet: CutSheetDoc; unit: Unit; stash: StashById };

/** What is left of a sheet that is cut to the end goes back to the stash as scraps of its paper. */
export function RestsAway({ sheet, unit, stash }: Props) {
  const queries = useQueryClient();
  // The same rests twice are put away once.
  const key = useRef(new Map<string, string>());
  const away = useMutation({
    mutationFn: (scraps: StashItemDoc[]) => {
      const of = `${sheet.item}-${sheet.copy}`;
      const once = key.current.get(of) ?? newKey();
      key.current.set(of, once);
      return api.putAway(scraps, false, once);
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["stash"] }),
  });
  const paper = stash.get(thingOf(sheet))?.item;
  if (!paper || sheet.done < sheet.cuts.length || sheet.cuts.length === 0 || sheet.rests.length === 0) return null;
  const scraps = sheet.rests.map(
    (rest): StashItemDoc => ({
      unit,
      kind: "scrap",
      name: `${paper.name}, scrap`,
      count: 1,
      size: { w: rest.w, h: rest.h },
      a: paper.a,
      ...(paper.b ? { b: paper.b } : {}),
      ...(paper.kit ? { kit: paper.kit } : {}),
    }),
  );
  const many = scraps.length === 1 ? "the rest" : `${scraps.length} rests`;
  return (
    <div className="grid justify-items-start gap-1">
      <button
        type="button"
        className="button"
        disabled={away.isPending || away.isSuccess}
        onClick={() => away.mutate(scraps)}
      >
        {away.isSuccess ? "They lie in the stash" : `Put ${many} of ${paper.name} in the stash`}
      </button>
      {away.error && <Failed error={away.error} />}
    </div>
  );
}
