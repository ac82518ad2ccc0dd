import type { ReactNode } from "react";
import { Sheet } from "../parts/Sheet";

/** One shared piece, in its states. */
export function Piece({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Sheet title={name}>
      <div className="mt-2">{children}</div>
    </Sheet>
  );
}
