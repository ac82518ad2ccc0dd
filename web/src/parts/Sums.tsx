import type { HTMLAttributes, ReactNode } from "react";

/** Figures of a view in one line, each large with its words. */
export function Sums(rest: HTMLAttributes<HTMLDivElement>) {
  return (
    <div
      {...rest}
      className="d-flex flex-wrap align-items-baseline column-gap-4 py-2 mb-1 border-top border-2 border-primary"
    />
  );
}

export interface SumProps {
  figure: ReactNode;
  /** What stands before the figure. */
  mark?: ReactNode;
  className?: string;
  children: ReactNode;
}

export function Sum({ figure, mark, className, children }: SumProps) {
  return (
    <div className={className}>
      {mark && <span className="me-2">{mark}</span>}
      <span className="fig fs-2 fw-semibold">{figure}</span> {children}
    </div>
  );
}
