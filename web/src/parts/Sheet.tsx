import { useId, useState, type ReactNode } from "react";
import { Button } from "react-bootstrap";

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
        <header className="d-flex flex-wrap align-items-baseline justify-content-between column-gap-3">
          <h2>{title}</h2>
          {aside}
        </header>
      )}
      {children}
    </section>
  );
}

export interface ViewHeadProps {
  title: string;
  /** What is pressed often. */
  children?: ReactNode;
  /** What is pressed seldom: on a phone it lies behind one key. */
  more?: ReactNode;
}

/** The head of a view: its name, and its keys. */
export function ViewHead({ title, children, more }: ViewHeadProps) {
  const [open, setOpen] = useState(false);
  const id = useId();
  return (
    <div className="d-flex flex-wrap gap-3 align-items-center justify-content-between mb-3">
      <h1 className="m-0">{title}</h1>
      {(children || more) && (
        <div className="d-flex gap-2 flex-wrap align-items-end d-print-none">
          {children}
          {more && (
            <>
              <Button
                variant="outline-primary"
                className="d-sm-none"
                aria-expanded={open}
                aria-controls={id}
                onClick={() => setOpen(!open)}
              >
                {open ? "Fewer keys" : "Other acts"}
              </Button>
              <div id={id} className={`${open ? "d-flex" : "d-none d-sm-flex"} gap-2 flex-wrap`}>
                {more}
              </div>
            </>
          )}
        </div>
      )}
    </div>
  );
}
