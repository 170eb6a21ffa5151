import { useMutation } from "@tanstack/react-query";
import { api, type BlockDoc, type ChangeDoc, type FitDoc } from "@/api/client";
import { kindWord } from "@/shared/drawing/geometry";
import { atFold, drawnCorner, foldWays, optionOf, slotChoiceOf, slotOptions, withAtFold, withSlot } from "./holding";

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
      <AtFold fit={fit} block={block} change={change} />
      {plain && (
        <Row label="Kind">
          <select
            className="field min-w-0 flex-1 py-1"
            aria-label="Kind"
            value={block.kind}
            onChange={(e) => {
              const kind = e.target.value;
              ask.mutate({
                what: { what: "kind", block: block.id, kind },
                reason: `${block.id} becomes a ${kindWord(kind)}`,
              });
            }}
          >
            {KINDS.map((k) => (
              <option key={k} value={k}>
                {kindWord(k)}
              </option>
            ))}
          </select>
        </Row>
      )}
      {block.kind === "photo" && photos.length > 0 && (
        <Row label="Swap with">
          <select
            className="field min-w-0 flex-1 py-1"
            aria-label="Swap with"
            value=""
            onChange={(e) => {
              const other = e.target.value;
              ask.mutate({
                what: { what: "swap", block: block.id, with: other },
                reason: `${block.id} and ${other} swapped`,
              });
            }}
          >
            <option value="" disabled>
              another photo…
            </option>
            {photos.map((b) => (
              <option key={b.id} value={b.id}>
                {fit.sketch.blocks.indexOf(b) + 1} photo {b.id}
              </option>
            ))}
          </select>
        </Row>
      )}
      {block.host && (
        <Row label="Sits at">
          <select
            className="field min-w-0 flex-1 py-1"
            aria-label="Corner"
            value=""
            onChange={(e) => {
              const corner = e.target.value;
              const at = CORNERS.find((c) => c.value === corner)?.label ?? corner;
              ask.mutate({
                what: { what: "corner", block: block.id, corner: drawnCorner(fit, corner) },
                reason: `${block.id} to the ${at} of ${block.host}`,
              });
            }}
          >
            <option value="" disabled>
              another corner of {block.host}…
            </option>
            {CORNERS.map((c) => (
              <option key={c.value} value={c.value}>
                {c.label}
              </option>
            ))}
          </select>
        </Row>
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
    <Row label="This slot">
      <select
        className="field min-w-0 flex-1 py-1"
        aria-label="This slot"
        value={chosen?.name ?? ""}
        onChange={(e) => {
          const option = options.find((o) => o.name === e.target.value);
          if (option) change(withSlot(fit, block.id, option.choice), `slot ${block.id}: ${option.label}`);
        }}
      >
        {!chosen && <option value="">as she chose</option>}
        {options.map((o) => (
          <option key={o.name} value={o.name}>
            {o.label}
          </option>
        ))}
      </select>
    </Row>
  );
}

/** Where a block goes that would stand on the fold, or that it stands on both pages. */
function AtFold({ fit, block, change }: Props) {
  const ways = foldWays(block.kind);
  const isSpread = fit.target.pages === 2;
  if (!isSpread || ways.length === 0) return null;
  return (
    <Row label="At the fold">
      <select
        className="field min-w-0 flex-1 py-1"
        aria-label="At the fold"
        value={atFold(fit, block.id)}
        onChange={(e) => {
          const way = ways.find((w) => w.value === e.target.value);
          if (way) change(withAtFold(fit, block.id, way.value), `${block.id} at the fold: ${way.label}`);
        }}
      >
        {ways.map((w) => (
          <option key={w.value} value={w.value}>
            {w.label}
          </option>
        ))}
      </select>
    </Row>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="flex min-w-0 items-center gap-2">
      <span className="w-[74px] shrink-0 text-second">{label}</span>
      {children}
    </div>
  );
}
