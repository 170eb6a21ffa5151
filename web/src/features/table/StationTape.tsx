import type { StationView } from "@/api/client";

/** The ten stations as a short tape: settled ones are inked over, one that needs a look has a ring. */
export function StationTape({ stations }: { stations: readonly StationView[] }) {
  const settled = stations.filter((s) => s.state === "settled").length;
  const look = stations.filter((s) => s.state === "needs-a-look").map((s) => s.name);
  const says = `${settled} of 10 stations settled${look.length ? `; ${look.join(" and ")} needs a look` : ""}`;
  return (
    <svg
      width="110"
      height="10"
      viewBox="0 0 150 12"
      preserveAspectRatio="none"
      role="img"
      aria-label={says}
      className="mt-1 block"
    >
      <title>{says}</title>
      <rect width="150" height="12" fill="#ffc93c" />
      {stations.map((s, n) => (
        <g key={s.name} transform={`translate(${n * 15} 0)`}>
          {s.state === "settled" && <rect width="15" height="12" fill="#17263b" />}
          {s.state === "needs-a-look" && (
            <circle cx="7.5" cy="6" r="3.6" fill="none" stroke="#a01349" strokeWidth="2.2" />
          )}
          <path d="M0 0V4" stroke={s.state === "settled" ? "#ffc93c" : "#2b2206"} strokeWidth="1" />
        </g>
      ))}
      <rect x="0.5" y="0.5" width="149" height="11" fill="none" stroke="#ffc93c" />
    </svg>
  );
}
