import { type ComponentProps, useMemo, useState } from "react";
import type { PlanDoc, TitleDoc, TitleSetDoc, WordsSectionDoc, WritingDoc, WrittenDoc } from "@/api/client";
import { unitOf } from "@/features/fit/model";
import { chosenWay, useProposals } from "@/features/fit/useProposals";
import { useMayChange } from "@/features/people/useMe";
import { fitOf } from "@/features/plan/sections";
import type { StationProps } from "@/features/plan/stationProps";
import { BlockNumbers } from "@/shared/drawing/BlockNumbers";
import { numbered } from "@/shared/drawing/geometry";
import { Failed } from "@/shared/ui/Failed";
import { Sentence } from "@/shared/ui/Length";
import { Notice } from "@/shared/ui/Notice";
import { Workbench } from "@/shared/ui/Workbench";
import { LetterTray } from "./LetterTray";
import {
  shownSetting,
  standing,
  withBanner,
  withoutSetting,
  withRemedy,
  withSetting,
  withTitle,
  withWriting,
} from "./model";
import { Settings } from "./Settings";
import { TitleLedger } from "./TitleLedger";
import { useWords } from "./useWords";
import { WherePlaced } from "./WherePlaced";
import { WordsPage } from "./WordsPage";
import { WritingLedger } from "./WritingLedger";

/** The title in the letters that are left, and the writing in her own hand. */
export function WordsStation({ page, plan, saved, changePlan }: StationProps) {
  const mayChange = useMayChange();
  const fit = fitOf(plan);
  const unit = unitOf(fit);
  const answer = useProposals(fit);
  const way = chosenWay(fit, answer.data?.proposals ?? []);
  const decided = plan.words?.title;
  const [typed, setTyped] = useState<string>();
  const [pointed, setPointed] = useState<number>();
  // Until it is committed the text in the field is set as if it were decided.
  const asked = useMemo(() => askedWords(plan, typed), [plan, typed]);
  const outcome = useWords(page.id, plan, asked, way?.layout);
  const found = outcome.data;
  const title = found?.title ?? null;
  const settings = title?.proposals ?? [];
  const shown = shownSetting(settings, pointed);
  const setting = settings[shown];
  const written = found?.writing ?? null;
  const trays = found?.sets ?? [];
  const blocks = useMemo(() => (way ? numbered(fit.sketch, way.layout.blocks) : []), [fit.sketch, way]);
  const names = useMemo(() => blocks.map((b): [string, string] => [b.block.id, b.number]), [blocks]);
  const change = (next: PlanDoc | undefined, reason: string) => {
    if (!mayChange || !next) return;
    setPointed(undefined);
    setTyped(undefined);
    changePlan(next, reason);
  };
  const where = (
    what: string,
    at: TitleSetDoc | WrittenDoc | null,
    decided: TitleDoc | WritingDoc | null | undefined,
    onChange: ComponentProps<typeof WherePlaced>["onChange"],
  ) =>
    way && (
      <WherePlaced
        what={what}
        places={found?.places ?? []}
        canvas={way.layout.canvas}
        where={decided ?? undefined}
        at={at}
        unit={unit}
        onChange={onChange}
      />
    );
  const gone = (decided?.taken?.length ?? 0) > 0 && found && typed === undefined && !settings.some((s) => s.is_taken);
  return (
    <BlockNumbers numbers={names}>
      <Workbench
        widths={[240, 372]}
        card={{ name: "Letters", content: <LetterTray trays={trays} setting={setting} unit={unit} /> }}
        page={
          <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3">
            {answer.isError && <Failed error={answer.error} onRetry={() => answer.refetch()} />}
            {outcome.isError && <Failed error={outcome.error} onRetry={() => outcome.refetch()} />}
            {(answer.isPending || (way && outcome.isPending)) && <Notice>Setting the words…</Notice>}
            {answer.data?.conflict && (
              <Notice>
                This page can't be laid out as it stands: <Sentence text={answer.data.conflict.text} /> The Fit station
                shows what to let go.
              </Notice>
            )}
            {found && (
              <p role="status" className="font-medium">
                {standing(asked.title, setting, written)}
              </p>
            )}
            {gone && (
              <Notice>
                The setting that was taken can't be laid any more: its space or its letters changed. Take another one,
                or give its letters back.
              </Notice>
            )}
            {way && found && (
              <WordsPage
                fit={fit}
                layout={way.layout}
                title={title}
                setting={setting}
                trays={trays}
                written={written}
              />
            )}
            {found && asked.title?.text.trim() && !title && (
              <Notice>
                {trays.length === 0
                  ? "No letter set is in the stash yet: put one away there, and the title can be set."
                  : "There is no space for the title: the sketch has no block for it, and nothing on the page is free."}
              </Notice>
            )}
            {title && (
              <Settings
                title={title}
                trays={trays}
                shown={shown}
                onShow={setPointed}
                onTake={
                  mayChange ? (s) => change(withSetting(withTyped(plan, typed), s), `title set: ${s.name}`) : undefined
                }
                onLeave={mayChange ? () => change(withoutSetting(plan), "letters of the title given back") : undefined}
              />
            )}
          </div>
        }
        ledger={
          <div className="sheet grid gap-4">
            <TitleLedger
              title={plan.words?.title ?? undefined}
              found={title}
              setting={setting}
              trays={trays}
              unit={unit}
              mayChange={mayChange}
              where={where("the title", title, plan.words?.title, (c, reason) =>
                change(withTitle(withTyped(plan, typed), c), reason),
              )}
              onBanner={
                mayChange && withBanner(plan, title?.block)
                  ? () => change(withBanner(withTyped(plan, typed), title?.block), "a banner laid behind the title")
                  : undefined
              }
              onType={setTyped}
              onChange={(c, reason) => change(withTitle(plan, c), reason)}
            />
            <WritingLedger
              page={page.id}
              saved={saved}
              writing={plan.words?.writing ?? undefined}
              written={written}
              sentence={found?.sentence ?? ""}
              types={found?.types ?? []}
              unit={unit}
              mayChange={mayChange}
              where={where("the writing", written, plan.words?.writing, (c, reason) =>
                change(withWriting(plan, c), reason),
              )}
              onChange={(c, reason) => change(withWriting(plan, c), reason)}
              onRemedy={(r) => written && change(withRemedy(plan, written, r), r.text.toLowerCase())}
            />
          </div>
        }
      />
    </BlockNumbers>
  );
}

/** The plan with the title that is being typed. */
const withTyped = (plan: PlanDoc, typed: string | undefined) =>
  typed === undefined || typed.trim() === plan.words?.title?.text ? plan : withTitle(plan, { text: typed.trim() });

function askedWords(plan: PlanDoc, typed: string | undefined): WordsSectionDoc {
  const { mark: _, grounds: __, ...words } = withTyped(plan, typed).words ?? {};
  return words;
}
