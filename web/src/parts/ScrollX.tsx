import type { ReactNode } from "react";

/** A wide table that scrolls sideways on a narrow screen, by finger or by keyboard. */
export function ScrollX({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="table-responsive" role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  );
}
