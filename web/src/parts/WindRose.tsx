/** North, and where the wind blows to; at a corner of a map. */
export function WindRose({ from }: { from?: number | null }) {
  return (
    <svg
      className="drawn leaflet-top leaflet-right m-2"
      width="92"
      viewBox="-40 -40 80 80"
      role="img"
      aria-label={rose(from)}
    >
      <circle r="36" className="paper" />
      <path d="M0 -34L6 -20H-6Z" className="dot" />
      <text y="-8" textAnchor="middle">
        N
      </text>
      {from != null && (
        <g transform={`rotate(${from})`}>
          <path d="M0 -30V26M-7 16L0 27L7 16" className="ink" strokeWidth={3} opacity={0.75} />
        </g>
      )}
    </svg>
  );
}

const rose = (from?: number | null) =>
  from == null ? "North is up; the wind is not known" : `North is up; wind from ${Math.round(from)} degrees`;
