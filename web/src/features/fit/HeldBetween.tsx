import { useState } from "react";
import type { FitDoc, PinDoc, PlaceDoc } from "@/api/client";
import { byNumber, useBlockNumbers } from "@/shared/drawing/BlockNumbers";
import { kindWord } from "@/shared/drawing/geometry";
import { Length, Sentence } from "@/shared/ui/Length";
import { LengthField } from "@/shared/ui/LengthField";
import {
  EDGE_WORDS,
  likeEdges,
  measureOf,
  pinsBetween,
  SIZES,
  wayWords,
  withoutThisPin,
  withPinBetween,
} from "./holding";
import { unitOf } from "./model";

type Props = {
  fit: FitDoc;
  block: string;
  places: readonly PlaceDoc[];
  change: (fit: FitDoc, reason: string) => void;
};

const TIMES = [
  { value: 1, label: "1 ×" },
  { value: 0.5, label: "half" },
  { value: 2, label: "twice" },
  { value: 1 / 3, label: "a third of" },
  { value: 3, label: "3 ×" },
];

/** What of a block is held to another: a distance, a line, touching, as large as. */
export function HeldBetween({ fit, block, places, change }: Props) {
  const numbers = useBlockNumbers();
  const [open, setOpen] = useState(false);
  const held = pinsBetween(fit, block);
  if (fit.sketch.blocks.length < 2) return null;
  return (
    <section aria-label="Held to other blocks" className="mt-2">
      <ul className="grid gap-1">
        {held.map((pin) => (
          <li key={pinKey(pin)} className="flex items-center justify-between gap-2">
            <span>
              <PinWords pin={pin} fit={fit} />
            </span>
            <button
              type="button"
              className="button shrink-0 py-0.5"
              aria-label={byNumber(`Let go of ${pin.block} ${pin.edge} and ${pin.to?.block}`, numbers)}
              onClick={() => change(withoutThisPin(fit, pin), `${pin.block} no longer held to ${pin.to?.block}`)}
            >
              Let go
            </button>
          </li>
        ))}
      </ul>
      {open ? (
        <NewPin fit={fit} block={block} places={places} change={change} onDone={() => setOpen(false)} />
      ) : (
        <button type="button" className="button mt-1" onClick={() => setOpen(true)}>
          Hold it to another block…
        </button>
      )}
    </section>
  );
}

export function pinKey(pin: PinDoc): string {
  return [pin.block, pin.edge, pin.to?.block ?? "", pin.to?.edge ?? ""].join("-");
}

/** A pin in words: `left edge of p2, 1/2 in right of the right edge of p1`. */
export function PinWords({ pin, fit }: { pin: PinDoc; fit: FitDoc }) {
  const unit = unitOf(fit);
  if (!pin.to) {
    return (
      <>
        {EDGE_WORDS[pin.edge]} of <Sentence text={pin.block} /> at <Length value={pin.at} unit={unit} withUnit />
      </>
    );
  }
  const [more, less] = wayWords(pin.edge);
  const times = TIMES.find((t) => Math.abs(t.value - (pin.to?.times ?? 1)) < 1e-6);
  const part = times?.value === 1 ? "" : `${times?.label ?? `${pin.to.times} ×`} `;
  const other = `the ${EDGE_WORDS[pin.to.edge]} of ${pin.to.block}`;
  if (pin.at === 0) {
    const like = (SIZES as readonly string[]).includes(pin.edge) ? "as" : "on";
    return (
      <>
        {EDGE_WORDS[pin.edge]} of <Sentence text={pin.block} /> {like} {part}
        <Sentence text={other} />
      </>
    );
  }
  return (
    <>
      {EDGE_WORDS[pin.edge]} of <Sentence text={pin.block} /> <Length value={Math.abs(pin.at)} unit={unit} withUnit />{" "}
      {pin.at > 0 ? more : less} {part}
      <Sentence text={other} />
    </>
  );
}

/** A new pin between two blocks, put as a sentence; it starts from how they lie now. */
function NewPin({ fit, block, places, change, onDone }: Props & { onDone: () => void }) {
  const unit = unitOf(fit);
  const others = fit.sketch.blocks.filter((b) => b.id !== block);
  const [edge, setEdge] = useState("left");
  const [other, setOther] = useState(others[0]?.id ?? "");
  const [otherEdge, setOtherEdge] = useState("left");
  const [times, setTimes] = useState(1);
  const [typed, setTyped] = useState<number>();
  const isSize = (SIZES as readonly string[]).includes(edge);
  const edges = isSize ? SIZES : likeEdges(edge);
  const here = (id: string) => places.find((p) => p.id === id)?.here;
  const [own, their] = [here(block), here(other)];
  const now = own && their ? measureOf(own, edge) - times * measureOf(their, otherEdge) : 0;
  const at = typed ?? now;
  const [more, less] = wayWords(edge);
  const pick = (value: string) => {
    setEdge(value);
    setOtherEdge(value);
    setTyped(undefined);
  };
  return (
    <div className="mt-1 grid grid-cols-[minmax(0,1fr)] gap-1.5 rounded-[3px] border border-hairline p-2">
      <span className="flex flex-wrap items-center gap-1.5">
        Its
        <select
          className="field py-1"
          aria-label="What of this block"
          value={edge}
          onChange={(e) => pick(e.target.value)}
        >
          {Object.entries(EDGE_WORDS).map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
        is
        <LengthField
          label="How far"
          hideLabel
          value={Math.abs(at)}
          unit={unit}
          most={40}
          width="4.4rem"
          onCommit={(v) => setTyped(at < 0 ? -v : v)}
        />
        <select
          className="field py-1"
          aria-label="Which way"
          value={at < 0 ? "less" : "more"}
          onChange={(e) => setTyped(e.target.value === "less" ? -Math.abs(at) : Math.abs(at))}
        >
          <option value="more">{more}</option>
          <option value="less">{less}</option>
        </select>
      </span>
      <span className="flex flex-wrap items-center gap-1.5">
        {isSize && (
          <select
            className="field py-1"
            aria-label="Which part"
            value={times}
            onChange={(e) => {
              setTimes(Number(e.target.value));
              setTyped(undefined);
            }}
          >
            {TIMES.map((t) => (
              <option key={t.label} value={t.value}>
                {t.label}
              </option>
            ))}
          </select>
        )}
        the
        <select
          className="field py-1"
          aria-label="What of the other block"
          value={otherEdge}
          onChange={(e) => {
            setOtherEdge(e.target.value);
            setTyped(undefined);
          }}
        >
          {edges.map((e) => (
            <option key={e} value={e}>
              {EDGE_WORDS[e]}
            </option>
          ))}
        </select>
        of
        <select
          className="field py-1"
          aria-label="Which other block"
          value={other}
          onChange={(e) => {
            setOther(e.target.value);
            setTyped(undefined);
          }}
        >
          {others.map((b) => (
            <option key={b.id} value={b.id}>
              {fit.sketch.blocks.indexOf(b) + 1} {kindWord(b.kind)}
            </option>
          ))}
        </select>
      </span>
      <span className="flex gap-1.5">
        <button
          type="button"
          className="button"
          onClick={() => {
            const to = { block: other, edge: otherEdge, ...(isSize && times !== 1 ? { times } : {}) };
            change(withPinBetween(fit, { block, edge, at, to }), `${edge} of ${block} held to ${other}`);
            onDone();
          }}
        >
          Hold
        </button>
        <button type="button" className="button" onClick={onDone}>
          Cancel
        </button>
        <button type="button" className="button" onClick={() => setTyped(0)}>
          {isSize ? "As large" : "In one line"}
        </button>
      </span>
    </div>
  );
}
