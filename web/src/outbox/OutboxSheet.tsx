import { ListGroup } from "react-bootstrap";
import { Dialog } from "../parts/Dialog";
import { serverIso, useZone } from "../parts/time";
import { useSession } from "../parts/session";
import { usePresses } from "./hooks";
import { saidOf } from "./kinds";
import { isDurable } from "./store";
import { Refused } from "./Waits";

/** Everything this device has not been able to hand over, in the order in which it was pressed. */
export function OutboxSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const all = usePresses();
  const z = useZone();
  const { person } = useSession();
  const mine = all.filter((p) => p.person === person.id);
  const others = [...new Set(all.filter((p) => p.person !== person.id).map((p) => p.personName))];
  return (
    <Dialog title="Not handed over yet" open={open} onClose={onClose}>
      <Refused refused={mine.filter((p) => p.refused)} />
      {mine.length === 0 && <p>Everything you pressed is with the server.</p>}
      <ListGroup as="ol" variant="flush">
        {mine
          .filter((p) => !p.refused)
          .map((p) => (
            <ListGroup.Item as="li" key={p.id}>
              <span className="fig">{z.second(serverIso(p.at))}</span> {saidOf(p)}
            </ListGroup.Item>
          ))}
      </ListGroup>
      {others.map((who) => (
        <p key={who}>
          {all.filter((p) => p.personName === who).length} of {who}: sent when {who} signs in on this device.
        </p>
      ))}
      <p className="soft mb-0">
        {isDurable()
          ? "It is kept on this device, through reloads and restarts, and sent in this order as soon as the server answers."
          : "This browser keeps nothing: do not close this page before all is sent."}
      </p>
    </Dialog>
  );
}
