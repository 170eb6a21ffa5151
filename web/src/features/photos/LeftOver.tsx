import type { PlacedPhotoDoc, PlanDoc, PrintDoc } from "@/api/client";
import { fitOf, withFit } from "@/features/plan/sections";
import { printsOn, withAside } from "./model";

type Props = { plan: PlanDoc; placed: readonly PlacedPhotoDoc[]; change: (plan: PlanDoc, reason: string) => void };

/** Prints without a place, or places of the sketch without a print, with what could be done: each a step that lays the page out again. */
export function LeftOver({ plan, placed, change }: Props) {
  const prints = printsOn(plan);
  if (prints.length === 0) return null;
  const aside = prints.filter((p) => p.aside);
  const drawn = plan.sketch.sketch.blocks.filter((b) => b.kind === "photo");
  const chosen = new Set((plan.fit.slots ?? []).flatMap((s) => s.photos));
  const lacking = drawn.length - chosen.size - (prints.length - aside.length);
  const smallest = drawn.filter((b) => !chosen.has(b.id)).sort((a, b) => a.box.w * a.box.h - b.box.w * b.box.h)[0];
  return (
    <>
      {aside.length > 0 && <Aside aside={aside} plan={plan} placed={placed} change={change} />}
      {lacking > 0 && smallest && plan.fit.target.pages === plan.sketch.sketch.canvas.pages && (
        <div>
          <h3>{lacking === 1 ? "One place has no print" : `${lacking} places have no print`}</h3>
          <p>
            The sketch draws {drawn.length} photos. Places are joined for the prints that you have, or the smallest
            becomes a card to write on.
          </p>
          <button
            type="button"
            className="button mt-1.5"
            onClick={() => {
              const fit = fitOf(plan);
              const slots = [...(fit.slots ?? []), { photos: [smallest.id], as: "journal" }];
              change(withFit(plan, { ...fit, slots }), "a card to write on in place of a photo");
            }}
          >
            Write on a card there
          </button>
        </div>
      )}
    </>
  );
}

function Aside({ aside, plan, placed, change }: Props & { aside: readonly PrintDoc[] }) {
  const [first] = aside;
  const area = (p: PlacedPhotoDoc) => p.slot.w * p.slot.h;
  const alone = placed.filter((p) => placed.filter((o) => o.of === p.of).length === 1);
  const largest = [...alone].sort((a, b) => area(b) - area(a))[0];
  if (!first) return null;
  const count = aside.length;
  return (
    <div>
      <h3>{count === 1 ? "One print is left over" : `${countWord(count)} prints are left over`}</h3>
      <p>
        One more place would take print {first.id}. What lies aside stays off the page; swap it with a print that has a
        place.
      </p>
      <div className="mt-1.5 flex flex-wrap gap-2">
        <button
          type="button"
          className="button"
          onClick={() => change(withAside(plan, first.id, false), `a place more, for print ${first.id}`)}
        >
          Add a place
        </button>
        {largest && (
          <button
            type="button"
            className="button"
            onClick={() => {
              const fit = fitOf(plan);
              const beside = largest.slot.w >= largest.slot.h;
              const halves = { photos: [largest.of], as: "cells", cols: beside ? 2 : 1, rows: beside ? 1 : 2 };
              const slots = [...(fit.slots ?? []).filter((s) => !s.photos.includes(largest.of)), halves];
              const shared = withFit(plan, { ...fit, slots });
              change(withAside(shared, first.id, false), `two in the place of print ${largest.print}`);
            }}
          >
            Two in the largest place
          </button>
        )}
      </div>
    </div>
  );
}

const WORDS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine"];
const countWord = (count: number) => WORDS[count] ?? String(count);
