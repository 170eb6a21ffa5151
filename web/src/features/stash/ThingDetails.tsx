import { useState } from "react";
import type { StashItemDoc, StashItemView } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";
import { Confirm } from "@/shared/ui/Confirm";
import { Failed } from "@/shared/ui/Failed";
import { Length } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import { Segments } from "@/shared/ui/Segments";
import { CloseSheet, Sheet } from "@/shared/ui/Sheet";
import { ByPicture } from "./ByPicture";
import { LettersKept } from "./LettersKept";
import { PaperSwatch } from "./PaperSwatch";
import { WHOSE } from "./PutAway";
import { useStashChanges } from "./useStash";

/** What is told by a picture of one of its sides. */
const IN_PICTURES = new Set(["sheet", "pad", "cardstock", "card", "vellum", "packaging", "scrap"]);

type Props = { thing: StashItemView; mayChange: boolean; onClose: () => void };

/** A thing of the stash: both sides, how many, where it lies, who holds some; changed and taken out here. */
export function ThingDetails({ thing, mayChange, onClose }: Props) {
  const { change, takeOut } = useStashChanges();
  const [asking, setAsking] = useState(false);
  const { item } = thing;
  const unit: Unit = item.unit === "mm" ? "mm" : "in";
  const set = (changed: Partial<StashItemDoc>) => change.mutate({ thing, item: { ...item, ...changed } });
  const sides = item.b ? (["a", "b"] as const) : (["a"] as const);
  return (
    <Sheet title={item.name} width="middle" beside onClose={onClose}>
      <div className="grid gap-3 overflow-y-auto">
        {item.a.picture && (
          <div className="flex gap-3">
            {sides.map((side) => (
              <figure key={side}>
                <PaperSwatch item={item} side={side} width={200} height={200} perInch={40} />
                <figcaption className="text-[13px]">
                  {(side === "b" ? item.b?.name : item.a.name) ?? (side === "b" ? "other side" : "this side")}
                </figcaption>
              </figure>
            ))}
          </div>
        )}
        {item.size && mayChange && IN_PICTURES.has(item.kind) && (
          <ByPicture item={item} onTaken={(sides) => set(sides)} />
        )}
        {item.size && (
          <p className="text-second">
            <Length value={item.size.w} unit={unit} /> × <Length value={item.size.h} unit={unit} withUnit />
            {item.strip && (
              <>
                , printed strip of <Length value={item.strip.width} unit={unit} withUnit /> at the {item.strip.edge}
              </>
            )}
          </p>
        )}
        <fieldset disabled={!mayChange} className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2">
          <TextRow label="Name" value={item.name} onCommit={(name) => name && set({ name })} />
          <CountRow value={item.count} least={thing.held} onCommit={(count) => set({ count })} />
          <TextRow label="Kit" value={item.kit ?? ""} onCommit={(kit) => set({ kit: kit || null })} />
          <TextRow label="Kept in" value={item.kept ?? ""} onCommit={(kept) => set({ kept: kept || null })} />
          <TextRow label="Note" value={item.note ?? ""} onCommit={(note) => set({ note: note || null })} />
          <span className="text-second">Whose</span>
          <Segments
            label="Whose it is"
            value={thing.own ? "own" : "team"}
            options={WHOSE}
            disabled={!mayChange}
            onChoose={(whose) => change.mutate({ thing, item, own: whose === "own" })}
          />
          {item.size && (
            <>
              <span className="text-second">Size</span>
              <span className="flex items-center gap-1.5">
                <LengthField
                  label="Width"
                  hideLabel
                  value={item.size.w}
                  unit={unit}
                  least={0.1}
                  most={60}
                  onCommit={(w) => item.size && set({ size: { ...item.size, w } })}
                />
                ×
                <LengthField
                  label="Height"
                  hideLabel
                  value={item.size.h}
                  unit={unit}
                  least={0.1}
                  most={60}
                  onCommit={(h) => item.size && set({ size: { ...item.size, h } })}
                />
              </span>
            </>
          )}
        </fieldset>
        {item.kind === "letters" && (
          <LettersKept
            letters={item.letters}
            unit={unit}
            mayChange={mayChange}
            onChange={(letters) => set({ letters })}
          />
        )}
        {thing.holds.length > 0 && (
          <section aria-label="Held">
            <h3>Held</h3>
            {thing.holds.map((h) => (
              <p key={h.page}>
                {h.held} for {h.name}
                {h.held < h.wanted && <span className="text-measure">, {h.wanted - h.held} more wanted</span>}
              </p>
            ))}
          </section>
        )}
        {change.isError && <Failed error={change.error} />}
        {takeOut.isError && <Failed error={takeOut.error} />}
        <div className="flex gap-2">
          <CloseSheet />
          {mayChange && (
            <button type="button" className="button" onClick={() => setAsking(true)}>
              Take it out of the stash
            </button>
          )}
        </div>
      </div>
      <Confirm
        open={asking}
        title={`Take “${item.name}” out of the stash?`}
        text="It is gone for the whole team. Pages that hold some of it must choose another paper first."
        yes="Take it out"
        onClose={() => setAsking(false)}
        onYes={() => takeOut.mutate(thing.id, { onSuccess: onClose })}
      />
    </Sheet>
  );
}

function TextRow({ label, value, onCommit }: { label: string; value: string; onCommit: (value: string) => void }) {
  const [text, setText] = useState(value);
  const commit = () => {
    if (text.trim() !== value) onCommit(text.trim());
  };
  return (
    <label className="col-span-full grid grid-cols-subgrid items-center">
      <span className="text-second">{label}</span>
      <input
        className="field px-2"
        value={text}
        maxLength={400}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === "Enter" && commit()}
      />
    </label>
  );
}

function CountRow({ value, least, onCommit }: { value: number; least: number; onCommit: (value: number) => void }) {
  const [text, setText] = useState(String(value));
  const count = Number(text);
  const wrong = !Number.isInteger(count) || count < least || count > 100_000;
  const commit = () => {
    if (!wrong && count !== value) onCommit(count);
  };
  return (
    <label className="col-span-full grid grid-cols-subgrid items-center">
      <span className="text-second">How many</span>
      <span>
        <input
          className="field w-20 px-2 text-right"
          inputMode="numeric"
          value={text}
          aria-invalid={wrong}
          onChange={(e) => setText(e.target.value)}
          onBlur={commit}
          onKeyDown={(e) => e.key === "Enter" && commit()}
        />
        {wrong && (
          <span role="alert" className="ml-2 text-[12.5px] text-measure">
            {least > 0 ? `A whole number from ${least}: so many are held.` : "A whole number from 0."}
          </span>
        )}
      </span>
    </label>
  );
}
