import { Link } from "@tanstack/react-router";
import { Popover } from "radix-ui";
import { useDeferredValue, useMemo } from "react";
import type { PageView, PlanDoc } from "@/api/client";
import { checkName } from "@/features/clusters/model";
import { useLaid } from "@/features/clusters/useLaid";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { fitOf } from "@/features/plan/sections";
import { capital, small } from "@/features/stash/words";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import { Sentence } from "@/shared/ui/Length";

/** What an experienced eye would see on the page as it stands, on every station from Fit on: quiet, until she asks. The Clusters station
 * has the cures. */
export function QuietList({ page, plan, here }: { page: PageView; plan: PlanDoc; here: string }) {
  const fit = fitOf(plan);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const settled = useDeferredValue(plan);
  const laid = useLaid(page.id, settled, way?.layout);
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const findings = laid.data?.findings ?? [];
  if (findings.length === 0 || here === "clusters") return null;
  return (
    <Popover.Root>
      <Popover.Trigger className="link cursor-pointer text-[13px]">
        {findings.length === 1 ? "One thing worth a look" : `${capital(small(findings.length))} things worth a look`}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          className="sheet z-20 grid max-h-[70vh] w-[23rem] max-w-[94vw] gap-2 overflow-y-auto shadow-lg"
          aria-label="Worth a look"
        >
          <BlockNumbers numbers={names}>
            <ul className="grid gap-2">
              {findings.map((finding) => (
                <li key={finding.key} className="border-hairline border-b pb-2 last:border-b-0">
                  <span className="block text-[12.5px] text-second">{checkName(finding.what)}</span>
                  <Sentence text={finding.text} />
                </li>
              ))}
            </ul>
          </BlockNumbers>
          <Link to="/pages/$pageId/$station" params={{ pageId: page.id, station: "clusters" }} className="link">
            Look at them on the page, with what would cure them
          </Link>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
