export interface CellBarsProps {
  mv: number[];
  /** mV at the foot and head of the scale. */
  from: number;
  to: number;
  label: string;
  height?: number;
}

/** One thin bar per cell on a common scale: spread shows as raggedness. */
export function CellBars({ mv, from, to, label, height = 64 }: CellBarsProps) {
  const w = 200;
  const step = w / Math.max(mv.length, 1);
  const max = Math.max(...mv);
  return (
    <svg
      className="drawn"
      viewBox={`0 0 ${w} ${height}`}
      role="img"
      aria-label={label}
      preserveAspectRatio="none"
      style={{ height }}
    >
      {mv.map((v, i) => {
        const h = Math.max(2, Math.min(1, (v - from) / (to - from)) * (height - 4));
        const behind = max - v;
        return (
          <rect
            key={i}
            className={behind > 100 ? "v-stop" : behind > 30 ? "v-watch" : "full"}
            x={i * step + step * 0.15}
            width={step * 0.7}
            y={height - h}
            height={h}
          />
        );
      })}
      <path className="rule" d={`M0 ${height - 0.5}H${w}`} />
    </svg>
  );
}
