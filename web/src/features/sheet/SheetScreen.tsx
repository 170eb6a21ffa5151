import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useState } from "react";
import { ApiError, api, type Problem, takeAway } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { Notice } from "@/shared/ui/Notice";

const PAPERS = [
  { value: "letter", label: "Letter" },
  { value: "a4", label: "A4" },
] as const;
type Paper = (typeof PAPERS)[number]["value"];

/** The sheets as SVG, in order. */
async function sheets(id: string, paper: Paper): Promise<string[]> {
  const found: string[] = [];
  let count = 1;
  for (let n = 1; n <= count; n++) {
    const response = await fetch(takeAway.sheetView(id, paper, n));
    if (!response.ok) throw new ApiError((await response.json()) as Problem);
    count = Number(response.headers.get("x-sheets") ?? 1);
    found.push(await response.text());
  }
  return found;
}

/** The measurement sheet as it will be printed, and as PDF to take away. */
export function SheetScreen() {
  const { pageId } = useParams({ from: "/pages/$pageId/sheet" });
  const page = useQuery({ queryKey: ["page-name", pageId], queryFn: () => api.page(pageId) });
  const inches = page.data?.plan.unit !== "mm";
  const [chosen, setChosen] = useState<Paper>();
  const paper = chosen ?? (inches ? "letter" : "a4");
  const answer = useQuery({
    queryKey: ["sheet", pageId, paper, page.data?.revision],
    queryFn: () => sheets(pageId, paper),
    enabled: page.data !== undefined,
  });
  return (
    <main className="p-[18px] print:p-0">
      <div className="mb-3 flex flex-wrap items-center gap-3 print:hidden">
        <Link to="/pages/$pageId/$station" params={{ pageId, station: "fit" }} className="link">
          Back to the page
        </Link>
        <h1 className="text-[18px]">Measurement sheet{page.data ? `: ${page.data.name}` : ""}</h1>
        <label className="flex items-center gap-2">
          <span className="text-second">on</span>
          <select className="field py-1" value={paper} onChange={(e) => setChosen(e.target.value as Paper)}>
            {PAPERS.map((p) => (
              <option key={p.value} value={p.value}>
                {p.label}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="button button-first" onClick={() => window.print()}>
          Print
        </button>
        <a className="button" href={takeAway.sheet(pageId, paper)} download>
          PDF
        </a>
      </div>
      {page.isError && <Failed error={page.error} onRetry={() => page.refetch()} />}
      {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
      {(page.isPending || (answer.isPending && !answer.isError)) && <Notice>Drawing the sheet…</Notice>}
      <style>{`@page { size: ${paper === "a4" ? "A4" : "letter"}; margin: 0 }`}</style>
      <div className="grid justify-center gap-4 print:block">
        {answer.data?.map((svg, n) => (
          <Sheet key={svg} svg={svg} label={`Sheet ${n + 1} of ${answer.data.length}: the page and its measures`} />
        ))}
      </div>
    </main>
  );
}

/** A sheet's own nodes rather than a picture of it, so that it is set in the bundled fonts. */
function Sheet({ svg, label }: { svg: string; label: string }) {
  const put = (paper: HTMLDivElement | null) => {
    const drawn = new DOMParser().parseFromString(svg, "image/svg+xml").documentElement;
    drawn.setAttribute("width", "100%");
    drawn.removeAttribute("height");
    drawn.setAttribute("aria-hidden", "true");
    paper?.replaceChildren(document.importNode(drawn, true));
  };
  return (
    <div
      ref={put}
      role="img"
      aria-label={label}
      className="w-[816px] max-w-full border border-hairline bg-white print:w-full print:max-w-none print:break-after-page print:border-0"
    />
  );
}
