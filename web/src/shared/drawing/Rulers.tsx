import { memo } from "react";
import type { LayoutDoc } from "@/api/client";
import type { Unit } from "@/shared/lengths/length";

type Props = { canvas: LayoutDoc["canvas"]; unit: Unit; scale: number; at: number };

/** Rulers along the top and the left edge; each page is measured from its own left edge. */
export const Rulers = memo(function Rulers({ canvas, unit, scale, at }: Props) {
  const { page, pages } = canvas;
  const down = marks(page.h, unit, scale);
  return (
    <g aria-hidden fontSize={11} fill="var(--color-ink)">
      {Array.from({ length: pages }, (_, p) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: pages have no other name than their place
        <g key={p} transform={`translate(${at + p * page.w * scale} 0)`}>
          {marks(page.w, unit, scale).map((m) => (
            <g key={m.at}>
              <path d={`M${m.at} ${at - m.size}V${at - 1}`} stroke="var(--color-ink)" strokeWidth={m.label ? 1 : 0.7} />
              {m.label && (
                <text x={m.at - 2.5} y={at - 10} textAnchor="end">
                  {m.label}
                </text>
              )}
            </g>
          ))}
        </g>
      ))}
      <g transform={`translate(0 ${at})`}>
        {down.map((m) => (
          <g key={m.at}>
            <path d={`M${at - m.size} ${m.at}H${at - 1}`} stroke="var(--color-ink)" strokeWidth={m.label ? 1 : 0.7} />
            {m.label && (
              <text x={at - 11} y={m.at - 2} textAnchor="end">
                {m.label}
              </text>
            )}
          </g>
        ))}
      </g>
    </g>
  );
});

type Mark = { at: number; size: number; label: string };

/** Inches with their halves and quarters, or centimetres with their halves, as far as there is room for them. */
function marks(length: number, unit: Unit, scale: number): Mark[] {
  const major = unit === "in" ? 1 : 10;
  const parts = (unit === "in" ? [8, 4, 2, 1] : [10, 2, 1]).find((n) => (major / n) * scale >= 4.5) ?? 1;
  const every = [1, 2, 5, 10].find((n) => n * major * scale >= 20) ?? 10;
  const found: Mark[] = [];
  for (let n = 1; n <= Math.floor((length * parts) / major + 1e-6); n++) {
    const whole = n % parts === 0;
    const half = (n * 2) % parts === 0;
    const count = n / parts;
    const label = whole && count % every === 0 ? String(count) : "";
    found.push({ at: (n * major * scale) / parts, size: whole ? 12 : half ? 8 : 5, label });
  }
  return found;
}
