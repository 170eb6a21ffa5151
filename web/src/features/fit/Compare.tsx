import { useState } from "react";
import type { ProposalDoc } from "@/api/client";
import { PageSheet } from "@/shared/drawing/PageSheet";
import { CloseSheet, Sheet as Laid } from "@/shared/ui/Sheet";

/** Something that can be laid beside another: a way, or an alternative that was kept. */
export type Comparable = { name: string; proposal: ProposalDoc };

type Props = { all: readonly Comparable[]; first: string; onClose: () => void };

const ROOM = 470;

/** Two layouts side by side, or one over the other, with their figures. */
export function Compare({ all, first, onClose }: Props) {
  const [left, setLeft] = useState(first);
  const [right, setRight] = useState(all.find((c) => c.name !== first)?.name ?? first);
  const [over, setOver] = useState(false);
  const a = all.find((c) => c.name === left);
  const b = all.find((c) => c.name === right);
  return (
    <Laid
      title="Compare"
      width="whole"
      onClose={onClose}
      heading={
        <>
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={over} onChange={(e) => setOver(e.target.checked)} />
            one over the other
          </label>
          <CloseSheet className="ml-auto" />
        </>
      }
    >
      <div className="mt-3 grid gap-4 sm:grid-cols-2">
        <Side label="At the left" value={left} all={all} onPick={setLeft} found={a} shown={!over} />
        <Side label="At the right" value={right} all={all} onPick={setRight} found={b} shown={!over} />
      </div>
      {over && a && b && <Over under={a} upper={b} />}
    </Laid>
  );
}

type SideProps = {
  label: string;
  value: string;
  all: readonly Comparable[];
  found: Comparable | undefined;
  shown: boolean;
  onPick: (name: string) => void;
};

function Side({ label, value, all, found, shown, onPick }: SideProps) {
  const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
  const report = found?.proposal.report;
  return (
    <section aria-label={label} className="grid content-start gap-2">
      <select aria-label={label} className="field py-1" value={value} onChange={(e) => onPick(e.target.value)}>
        {all.map((c) => (
          <option key={c.name}>{c.name}</option>
        ))}
      </select>
      {found && shown && <Sheet one={found} room={ROOM} />}
      {report && (
        <p className="text-[14px] text-second">
          Off its place {percent(report.drift.mean)} on average, {percent(report.drift.max)} at most; lines kept{" "}
          {report.alignments.kept} of {report.alignments.of}; neighbours {report.relations.kept} of{" "}
          {report.relations.of}.
        </p>
      )}
    </section>
  );
}

function scaleFor({ proposal }: Comparable, room: number): number {
  const { page, pages } = proposal.layout.canvas;
  return Math.min(room / (page.w * pages), (room * 0.8) / page.h);
}

function Sheet({ one, room }: { one: Comparable; room: number }) {
  const { canvas, blocks } = one.proposal.layout;
  const scale = scaleFor(one, room);
  const [w, h] = [canvas.page.w * canvas.pages * scale, canvas.page.h * scale];
  return (
    <svg width={w + 2} height={h + 2} viewBox={`-1 -1 ${w + 2} ${h + 2}`} role="img" aria-label={one.name}>
      <PageSheet canvas={canvas} blocks={blocks} scale={scale} />
    </svg>
  );
}

/** The second one's outlines over the first one's page; where they are one line nothing has moved. */
function Over({ under, upper }: { under: Comparable; upper: Comparable }) {
  const { canvas, blocks } = under.proposal.layout;
  const scale = scaleFor(under, 2 * ROOM);
  const other = scaleFor(upper, 2 * ROOM);
  const [w, h] = [canvas.page.w * canvas.pages * scale, canvas.page.h * scale];
  return (
    <div className="mt-3">
      <svg
        width={w + 2}
        height={h + 2}
        viewBox={`-1 -1 ${w + 2} ${h + 2}`}
        role="img"
        aria-label={`${upper.name} over ${under.name}`}
      >
        <g opacity={0.55}>
          <PageSheet canvas={canvas} blocks={blocks} scale={scale} />
        </g>
        {upper.proposal.layout.blocks.map((b) => (
          <rect
            key={b.id}
            x={b.box.x * other}
            y={b.box.y * other}
            width={b.box.w * other}
            height={b.box.h * other}
            transform={`rotate(${b.turn ?? 0} ${(b.box.x + b.box.w / 2) * other} ${(b.box.y + b.box.h / 2) * other})`}
            fill="none"
            stroke="#c2185b"
            strokeWidth={2.2}
          />
        ))}
      </svg>
      <p className="text-[14px] text-second">
        Filled: {under.name}. Outlined: {upper.name}.
      </p>
    </div>
  );
}
