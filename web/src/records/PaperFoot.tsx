import { useSession } from "../parts/session";
import { serverNow, useZone } from "../parts/time";
import { useHead } from "./api";

/** The foot of every printed page: the newest head of the records, so that paper can prove later what was on file. */
export function PaperFoot() {
  const { crew, person } = useSession();
  const z = useZone();
  const head = useHead();
  return (
    <footer className="paper-foot">
      {crew.name} · printed {z.both(new Date(serverNow()).toISOString())} by {person.name} ·{" "}
      {head.data
        ? `records up to ${head.data.place}: ${head.data.words}`
        : "the head of the records could not be read"}
    </footer>
  );
}
