import type { ReactNode } from "react";

export interface SheetProps {
  title?: string;
  aside?: ReactNode;
  /** Its name in an address: ?at= leads here. */
  at?: string;
  children: ReactNode;
}

/** A panel: a sheet of paper with a strong upper edge. */
export function Sheet({ title, aside, at, children }: SheetProps) {
  return (
    <section className="sheet" data-at={at}>
      {title && (
        <header>
          <h2>{title}</h2>
          {aside}
        </header>
      )}
      {children}
    </section>
  );
}

export function ViewHead({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="view-head">
      <h1>{title}</h1>
      {children && <div className="d-flex gap-2 flex-wrap">{children}</div>}
    </div>
  );
}
