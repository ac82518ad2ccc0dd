import type { Schemas } from "../api/client";

export type Verdict = Schemas["Verdict"];

export const words: Record<Verdict, string> = { clear: "Clear", watch: "Watch", stop: "Stop" };

const rank: Record<Verdict, number> = { clear: 0, watch: 1, stop: 2 };

export function worst(vs: Verdict[]): Verdict {
  return vs.reduce<Verdict>((w, v) => (rank[v] > rank[w] ? v : w), "clear");
}

/** The flag of a verdict: Clear a pennant, Watch a swallowtail, Stop a square with a bar across. */
export function Flag({ verdict, size = 20 }: { verdict: Verdict; size?: number }) {
  return (
    <svg
      className="flag flex-shrink-0"
      fill={`var(--${verdict}-fill)`}
      width={size * 1.5}
      height={size}
      viewBox="0 0 30 20"
      aria-hidden="true"
      focusable="false"
    >
      {verdict === "clear" && <path d="M0 1 30 10 0 19z" />}
      {verdict === "watch" && <path d="M0 1h29l-9 9 9 9H0z" />}
      {verdict === "stop" && (
        <>
          <path d="M0 1h22v18H0z" />
          <path d="M0 10h22" stroke="var(--invert)" strokeWidth="5" />
        </>
      )}
    </svg>
  );
}

/** Shape and word of a verdict together. */
export function VerdictMark({ verdict, big }: { verdict: Verdict; big?: boolean }) {
  return (
    <span
      className={`verdict d-inline-flex align-items-center gap-2 fw-semibold text-nowrap ${big ? "fs-2" : ""}`}
      style={{ color: `var(--${verdict})` }}
    >
      <Flag verdict={verdict} size={big ? 30 : 18} />
      {words[verdict]}
    </span>
  );
}
