import { Button } from "react-bootstrap";
import { useZone } from "../parts/time";
import type { Once } from "./api";

/** A one-time password, shown this once. */
export function OnceCard({ name, once, onDone }: { name: string; once: Once; onDone: () => void }) {
  const zone = useZone();
  return (
    <>
      <p>Give this to {name}, and to nobody else. With it they come in and choose their own password.</p>
      <p className="fig text-center fs-2 border p-2" aria-label="One-time password">
        {once.password}
      </p>
      <p className="soft">
        It holds until {zone.both(once.until)} and is shown only now: it is kept nowhere. Nobody can sign with
        it.
      </p>
      <Button className="w-100" onClick={onDone}>
        Done, I passed it on
      </Button>
    </>
  );
}
