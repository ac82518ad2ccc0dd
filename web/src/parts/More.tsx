import { Button } from "react-bootstrap";
import type { ReadsOn } from "../api/pages";

/** The key under a list in pages that reads on; nothing on the last page. */
export function More({ of, what }: { of: ReadsOn; what: string }) {
  if (!of.hasNextPage) return null;
  return (
    <Button
      variant="outline-primary"
      className="mt-3 d-print-none"
      disabled={of.isFetchingNextPage}
      onClick={() => void of.fetchNextPage()}
    >
      {of.isFetchingNextPage ? "Reading …" : `Show older ${what}`}
    </Button>
  );
}
