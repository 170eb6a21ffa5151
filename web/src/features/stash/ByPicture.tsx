import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, newKey, type PaperSideDoc, type StashItemDoc } from "@/api/client";
import { Failed } from "@/shared/ui/Failed";
import { FileButton } from "@/shared/ui/FileButton";
import { Length } from "@/shared/ui/Length";
import { Segments } from "@/shared/ui/Segments";

type Props = { item: StashItemDoc; onTaken: (sides: Pick<StashItemDoc, "a" | "b">) => void };

const RUNS: Record<string, string> = {
  any: "runs no particular way",
  across: "runs from left to right",
  down: "runs from top to bottom",
  up: "has one way up",
};

/** A side by a photo of the sheet: brought upright, its colours taken, its pattern's size and direction suggested. She looks at it first. */
export function ByPicture({ item, onTaken }: Props) {
  const [side, setSide] = useState<"a" | "b">("a");
  const look = useMutation({
    mutationFn: async (file: File) => {
      const picture = await api.addPicture(file, file.name.slice(0, 200), newKey(), { paper: true });
      const size = item.size ?? { w: 12, h: 12 };
      return api.paperInPicture(picture.id, { width: size.w, height: size.h, unit: item.unit });
    },
  });
  const found = look.data?.side;
  const take = (taken: PaperSideDoc) => {
    const named = (item[side]?.name ?? undefined) === undefined ? taken : { ...taken, name: item[side]?.name ?? null };
    onTaken(side === "a" ? { a: named } : { a: item.a, b: named });
    look.reset();
  };
  return (
    <section aria-label="By a picture" className="grid gap-2 rounded-[3px] border border-hairline p-2">
      <div className="flex flex-wrap items-center gap-2">
        <FileButton accept="image/png,image/jpeg,image/webp" disabled={look.isPending} onChoose={look.mutate}>
          {look.isPending ? "Looking at it…" : "Show it in a picture"}
        </FileButton>
        <Segments
          label="Which side"
          value={side}
          options={[
            { value: "a", label: "this side" },
            { value: "b", label: "other side" },
          ]}
          onChoose={setSide}
        />
      </div>
      <p className="text-[13px] text-second">
        The whole sheet on a plain table, in even light. The picture is brought upright; what it tells is yours to
        correct.
      </p>
      {look.isError && <Failed error={look.error} />}
      {found && (
        <div className="grid gap-1.5 text-[13.5px]">
          <ul className="flex flex-wrap gap-1" aria-label="Its colours">
            {found.colours.map((c) => (
              <li
                key={c.colour}
                className="size-6 border border-hairline"
                style={{ background: c.colour }}
                title={`${Math.round(c.share * 100)} of 100`}
              />
            ))}
          </ul>
          <p>
            {found.scale ? (
              <>
                One motif is about <Length value={found.scale} unit={item.unit === "mm" ? "mm" : "in"} withUnit />
                {`; the pattern ${RUNS[found.direction] ?? found.direction}.`}
              </>
            ) : (
              "It looks plain."
            )}
          </p>
          <div className="flex gap-2">
            <button type="button" className="button button-first" onClick={() => take(found)}>
              Take this over
            </button>
            <button type="button" className="button" onClick={() => look.reset()}>
              Leave it
            </button>
          </div>
        </div>
      )}
    </section>
  );
}
