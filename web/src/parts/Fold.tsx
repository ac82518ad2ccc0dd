import { useState, type ReactNode } from "react";

export interface FoldProps {
  summary: ReactNode;
  className?: string;
  open?: boolean;
  children: ReactNode;
}

/** A part of a page that is looked up; it is drawn when it is opened, and not before. */
export function Fold({ summary, className, open = false, children }: FoldProps) {
  const [opened, setOpened] = useState(open);
  return (
    <details className={className} open={open} onToggle={(e) => e.currentTarget.open && setOpened(true)}>
      <summary className="tap py-2">{summary}</summary>
      {opened && children}
    </details>
  );
}
