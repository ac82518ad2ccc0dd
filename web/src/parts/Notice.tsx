import type { ReactNode } from "react";
import { Alert } from "react-bootstrap";
import type { Verdict } from "./Flag";

export interface NoticeProps {
  /** How grave it is; without one it only says something. */
  verdict?: Verdict;
  /** "alert" interrupts who listens, "status" waits. */
  role?: "alert" | "status" | "note" | "region";
  label?: string;
  className?: string;
  children: ReactNode;
}

const variants = { clear: "light", watch: "warning", stop: "danger" } as const;

/** Something that is said on the page. */
export function Notice({ verdict = "clear", role, label, className = "", children }: NoticeProps) {
  return (
    <Alert
      variant={variants[verdict]}
      role={role}
      aria-label={label}
      transition={false}
      className={`d-flex gap-3 align-items-start ${className}`}
    >
      {children}
    </Alert>
  );
}
