export interface ScaleProps {
  view: number[];
  /** Length of the bar, m. */
  bar: number;
  /** Metres of a unit of writing. */
  u: number;
  /** Where the wind comes from, degrees true. */
  from?: number | null;
}

/** Scale, north and wind of a drawing from above. */
export function Scale({ view, bar, u, from }: ScaleProps) {
  const [x = 0, y = 0, , h = 0] = view;
  return (
    <g className="ink">
      <path d={`M${x + u * 2} ${y + h - u * 3}v${u}h${bar}v${-u}`} strokeWidth={u * 0.3} fill="none" />
      <text x={x + u * 2 + bar / 2} y={y + h - u * 3} fontSize={u * 2.5} textAnchor="middle">
        {bar < 1000 ? `${bar} m` : `${bar / 1000} km`}
      </text>
      <g transform={`translate(${x + u * 5} ${y + u * 5})`}>
        <text y={-u * 1.2} fontSize={u * 2.5} textAnchor="middle">
          N
        </text>
        {from != null && (
          <g transform={`rotate(${from})`}>
            <path
              d={`M0 ${-u * 3.4}V${u * 3.4}M${-u} ${u * 2.2}L0 ${u * 3.6}L${u} ${u * 2.2}`}
              strokeWidth={u * 0.4}
              fill="none"
            />
          </g>
        )}
      </g>
    </g>
  );
}
