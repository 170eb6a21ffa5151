import { useRef } from "react";
import type { BuildStepDoc } from "@/api/client";
import { useWidth } from "@/shared/ui/useWidth";
import { shortWord } from "./model";

type Props = {
  steps: readonly BuildStepDoc[];
  end: number;
  shown: string | undefined;
  isDone: (step: string) => boolean;
  onShow: (step: string) => void;
};

const TOP = 18;
const BAR = 36;

/** Time runs along a tape to scale: what is done, what is now, what is to come; what dries is a dashed bracket, a knot is a point of no return. */
export function TimeTape({ steps, end, shown, isDone, onShow }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 900);
  const scale = (width - 4) / Math.max(1, end);
  const drying = steps.filter((s) => s.dries > 0 && !isDone(s.id)).map((s) => s.id);
  // Brackets take turns on two rows, so that neither they nor their words cover one another.
  const rowOf = (step: string) => (drying.indexOf(step) % 2) * 15;
  const marks = Array.from({ length: Math.floor(end / 15) + 1 }, (_, n) => n * 15);
  return (
    <div ref={frame} className="min-w-0">
      <svg
        width={width}
        height={TOP + BAR + 44}
        role="img"
        aria-label={`${steps.length} steps along ${end} minutes`}
        className="block"
      >
        {marks.map((m) => (
          <g key={m}>
            <path d={`M${2 + m * scale} ${TOP - 6}V${TOP}`} stroke="currentColor" />
            {m % 30 === 0 && (
              <text
                x={2 + m * scale}
                y={TOP - 8}
                fontSize={11}
                textAnchor={m === 0 ? "start" : "middle"}
                fill="currentColor"
              >
                {m} min
              </text>
            )}
          </g>
        ))}
        {steps.map((step, n) => {
          const [x, w] = [2 + step.from * scale, Math.max(0, (step.to - step.from) * scale)];
          const now = step.id === shown;
          const done = isDone(step.id);
          const fill = now ? "#ffc93c" : done ? "#17263b" : "#c3ccd2";
          const ink = done && !now ? "#ffffff" : "#17263b";
          return (
            // biome-ignore lint/a11y/noStaticElementInteractions: a step is chosen by keyboard in the list of steps
            <g key={step.id} className="cursor-pointer" onClick={() => onShow(step.id)}>
              <rect x={x} y={TOP} width={w} height={BAR} fill={fill} stroke="#17263b" />
              {w > 16 && (
                <text x={x + w / 2} y={TOP + 15} fontSize={12} fontWeight={700} textAnchor="middle" fill={ink}>
                  {n + 1}
                </text>
              )}
              {w > 46 && (
                <text x={x + w / 2} y={TOP + 29} fontSize={11} textAnchor="middle" fill={ink}>
                  {shortWord(step)}
                </text>
              )}
              {drying.includes(step.id) && (
                <>
                  <path
                    d={`M${x + w} ${TOP + BAR}v${8 + rowOf(step.id)}h${step.dries * scale}v${-8 - rowOf(step.id)}`}
                    fill="none"
                    stroke="currentColor"
                    strokeDasharray="4 3"
                  />
                  <text x={x + w + 4} y={TOP + BAR + 20 + rowOf(step.id)} fontSize={11} fill="currentColor">
                    dries {step.dries} min
                  </text>
                </>
              )}
              {step.no_return && <circle cx={Math.min(x + w, width - 6)} cy={TOP + BAR + 5} r={4.5} fill="#c2185b" />}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
