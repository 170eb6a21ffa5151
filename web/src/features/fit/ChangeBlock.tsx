import { useMutation } from "@tanstack/react-query";
import { api, type BlockDoc, type ChangeDoc, type FitDoc } from "@/api/client";
import { kindWord } from "@/shared/drawing/geometry";
import { AtFold } from "./AtFold";
import { Choice } from "./Choice";
import { drawnCorner, optionOf, slotChoiceOf, slotOptions, withSlot } from "./holding";

type Props = { fit: FitDoc; block: BlockDoc; change: (fit: FitDoc, reason: string) => void };

const KINDS = ["photo", "paper", "strip", "title", "journal", "cluster", "accent", "wash"];
const CORNERS = [
  { value: "top-left", label: "top left" },
  { value: "top-right", label: "top right" },
  { value: "bottom-left", label: "bottom left" },
  { value: "bottom-right", label: "bottom right" },
];

/** What a block is and how it stands: its slot, kind and turn, what it changes places with, the corner it sits at. */
export function ChangeBlock({ fit, block, change }: Props) {
  const ask = useMutation({
    mutationFn: async ({ what, reason }: { what: ChangeDoc["change"]; reason: string }) => {
      const sketch = await api.changeBlocks({ sketch: fit.sketch, change: what });
      return { sketch, reason };
    },
    onSuccess: ({ sketch, reason }) => change({ ...fit, sketch }, reason),
  });
  const photos = fit.sketch.blocks.filter((b) => b.kind === "photo" && b.id !== block.id);
  const plain = !block.grid && !block.ring && !block.under;
  return (
    <div className="mt-2 grid gap-1.5">
      {block.kind === "photo" && <Slot fit={fit} block={block} change={change} />}
      <AtFold key={block.id} fit={fit} block={block} change={change} />
      {plain && (
        <Choice
          label="Kind"
          value={block.kind}
          options={KINDS.map((kind) => ({ value: kind, label: kindWord(kind) }))}
          onChoose={(kind) =>
            ask.mutate({
              what: { what: "kind", block: block.id, kind: kind.value },
              reason: `${block.id} becomes a ${kind.label}`,
            })
          }
        />
      )}
      {block.kind === "photo" && photos.length > 0 && (
        <Choice
          label="Swap with"
          value=""
          unchosen="another photo…"
          options={photos.map((b) => ({ value: b.id, label: `${fit.sketch.blocks.indexOf(b) + 1} photo` }))}
          onChoose={(other) =>
            ask.mutate({
              what: { what: "swap", block: block.id, with: other.value },
              reason: `${block.id} and ${other.value} swapped`,
            })
          }
        />
      )}
      {block.host && (
        <Choice
          label="Sits at"
          name="Corner"
          value=""
          unchosen={`another corner of ${block.host}…`}
          options={CORNERS}
          onChoose={(corner) =>
            ask.mutate({
              what: { what: "corner", block: block.id, corner: drawnCorner(fit, corner.value) },
              reason: `${block.id} to the ${corner.label} of ${block.host}`,
            })
          }
        />
      )}
      {Boolean(block.turn) && (
        <button
          type="button"
          className="button justify-self-start"
          onClick={() =>
            ask.mutate({ what: { what: "straighten", block: block.id }, reason: `${block.id} straightened` })
          }
        >
          Straighten ({block.turn}°)
        </button>
      )}
      {ask.isError && (
        <p role="alert" className="text-measure">
          {ask.error.message}
        </p>
      )}
    </div>
  );
}

function Slot({ fit, block, change }: Props) {
  const options = slotOptions(fit, block);
  const chosen = optionOf(options, slotChoiceOf(fit, block.id));
  return (
    <Choice
      label="This slot"
      value={chosen?.name ?? ""}
      unchosen={chosen ? undefined : "another way, chosen before"}
      options={options.map((o) => ({ value: o.name, label: o.label }))}
      onChoose={({ value, label }) => {
        const option = options.find((o) => o.name === value);
        if (option) change(withSlot(fit, block.id, option.choice), `slot ${block.id}: ${label}`);
      }}
    />
  );
}
