import type { Verdict } from "../parts/Flag";

/** What is left of a life as a rope that shortens; the number stands beside it, never only the rope. */
export function Rope({ used, verdict, label }: { used: number; verdict: Verdict; label: string }) {
  const left = Math.max(0, Math.min(1, 1 - used));
  return (
    <svg
      className="drawn"
      viewBox="0 0 200 10"
      width="100%"
      height={10}
      preserveAspectRatio="none"
      role="img"
      aria-label={label}
    >
      <path className="rule" d="M0 5h200" strokeWidth="2" />
      <path
        className={verdict === "clear" ? "ink" : `s-${verdict}`}
        d={`M0 5h${200 * left}`}
        strokeWidth="6"
      />
    </svg>
  );
}
