/** A print's number in a square, as blocks have theirs in rings: its handle on the page. */
export function PrintSquare({ x, y, id }: { x: number; y: number; id: string }) {
  const w = Math.max(18, 9 + id.length * 7);
  return (
    <g>
      <rect x={x - 9} y={y - 9} width={w} height={18} fill="#17263b" stroke="#ffffff" />
      <text
        x={x - 9 + w / 2}
        y={y}
        dy="0.35em"
        textAnchor="middle"
        fontSize={11}
        fontWeight={700}
        fill="#ffffff"
        aria-hidden
      >
        {id}
      </text>
    </g>
  );
}

/** The same on the worktop. */
export function PrintBadge({ id }: { id: string }) {
  return (
    <span className="inline-flex h-[20px] min-w-[20px] items-center justify-center bg-[#17263b] px-1 font-bold text-[11px] text-white leading-none outline outline-white">
      {id}
    </span>
  );
}
