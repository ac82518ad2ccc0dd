import type { ReactNode } from "react";

export interface ThumbProps {
  className?: string;
  children: ReactNode;
}

/** What is pressed with the thumb: at the foot of the window, whatever stands above. */
export function Thumb({ className = "", children }: ThumbProps) {
  return (
    <div
      className={`thumb sticky-bottom d-flex flex-column gap-2 mt-auto py-2 border-top bg-body d-print-none ${className}`}
    >
      {children}
    </div>
  );
}
