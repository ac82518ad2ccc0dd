/** North, and where the wind blows to; at a corner of a map. */
export function WindRose({ from }: { from?: number | null }) {
  return (
    <svg className="rose" viewBox="-40 -40 80 80" role="img" aria-label={rose(from)}>
      <circle r="36" className="edge" />
      <path d="M0 -34L6 -20H-6Z" className="north" />
      <text y="-8" textAnchor="middle">
        N
      </text>
      {from != null && (
        <g transform={`rotate(${from})`}>
          <path d="M0 -30V26M-7 16L0 27L7 16" className="wind" />
        </g>
      )}
    </svg>
  );
}

const rose = (from?: number | null) =>
  from == null ? "North is up; the wind is not known" : `North is up; wind from ${Math.round(from)} degrees`;
