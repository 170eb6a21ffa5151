import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, type LayoutDoc, type PaperedPieceDoc, type PaperRefDoc, type PlanDoc } from "@/api/client";
import { unitOfPlan } from "@/features/photos/model";
import { type StashById, sideName } from "@/features/stash/looks";
import { capital, small } from "@/features/stash/words";
import { Failed } from "@/shared/ui/Failed";
import { Length, Sentence } from "@/shared/ui/Length";
import { choiceOf, withChoice } from "./model";

type Props = {
  plan: PlanDoc;
  layout: LayoutDoc;
  piece: PaperedPieceDoc;
  /** Papers of which it is told how many units a sheet gives. */
  papers: readonly PaperRefDoc[];
  stash: StashById;
  mayChange: boolean;
  change: (next: PlanDoc, reason: string) => void;
};

/** A grid or ring as it is set: how many and how many spare, what a sheet gives, and each row's marks in the order of laying. */
export function UnitTable({ plan, layout, piece, papers, stash, mayChange, change }: Props) {
  const unit = unitOfPlan(plan);
  const decided = plan.papers ?? {};
  const table = useQuery({
    queryKey: ["unit-table", plan.unit, decided, layout, piece.of, piece.part, papers],
    queryFn: ({ signal }) =>
      api.unitTable(
        { unit: plan.unit, papers: decided, layout, block: piece.of ?? "", part: piece.part ?? 0, deal: [...papers] },
        signal,
      ),
    placeholderData: keepPreviousData,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
  if (table.isError) return <Failed error={table.error} onRetry={() => table.refetch()} />;
  if (!table.data) return null;
  const { count, size, rows, cut_off, yields } = table.data;
  const spares = choiceOf(plan, piece).spares ?? 0;
  return (
    <section aria-labelledby="unit-table" className="grid gap-2 border-hairline border-t pt-2 text-[13px]">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 id="unit-table" className="text-[15px]">
          {capital(small(count))} of <Length value={size.w} unit={unit} /> ×{" "}
          <Length value={size.h} unit={unit} withUnit />
        </h2>
        <label className="flex items-center gap-1.5 text-second">
          and spare
          <input
            type="number"
            min={0}
            max={100}
            className="field w-16 py-0.5"
            value={spares}
            disabled={!mayChange}
            onChange={(e) => {
              const next = Math.min(100, Math.max(0, Math.floor(Number(e.target.value) || 0)));
              change(withChoice(plan, piece, { spares: next || undefined }), `${next} units to spare`);
            }}
          />
        </label>
      </div>
      <ul className="grid gap-0.5" aria-label="What a sheet gives">
        {yields.map(({ item, tool, each }) => {
          const paper = stash.get(item)?.item;
          const by = tool && stash.get(tool)?.item.name;
          return (
            paper && (
              <li key={`${item}-${tool ?? ""}`}>
                {sideName(paper, "a")}: <b>{each}</b> from each{by ? ` with ${by}` : ", by straight cuts"}
              </li>
            )
          );
        })}
      </ul>
      {rows.map((row) => (
        <div key={row.row}>
          <h3 className="font-semibold">
            Row {row.row}, from the top <Length value={row.top} unit={unit} />
          </h3>
          <p className="text-second">
            <Sentence text={row.told} />
          </p>
          <table className="mt-1 text-right">
            <tbody>
              <tr>
                <th scope="row" className="pr-3 text-left font-normal text-second">
                  laid
                </th>
                {row.marks.map((m) => (
                  <td key={m.unit} className="px-1.5">
                    {m.turn}
                  </td>
                ))}
              </tr>
              <tr>
                <th scope="row" className="pr-3 text-left font-normal text-second">
                  mark at
                </th>
                {row.marks.map((m) => (
                  <td key={m.unit} className="px-1.5 font-semibold text-measure">
                    <Length value={m.at} unit={unit} />
                  </td>
                ))}
              </tr>
            </tbody>
          </table>
        </div>
      ))}
      {cut_off.map((c) => (
        <p key={c.unit}>
          Unit {c.unit.replace("/", ", ")}: <Sentence text={c.told} />
        </p>
      ))}
    </section>
  );
}
