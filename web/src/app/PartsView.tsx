import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import { Dialog } from "../parts/Dialog";
import { ViewHead } from "../parts/Sheet";
import { Empty, Loading, Problem, Stale } from "../parts/states";
import { AirframePieces } from "./AirframePieces";
import { FormPieces } from "./FormPieces";
import { Piece } from "./Piece";
import { SignPieces } from "./SignPieces";

/** Every shared piece in every state, to look at when one is changed. */
export function PartsView() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <ViewHead title="Interface pieces">
        <Button onClick={() => setOpen(true)}>Open a dialog</Button>
      </ViewHead>
      <div className="two">
        <SignPieces />
        <FormPieces />
        <Piece name="Empty, loading, error, stale">
          <div className="vstack gap-3">
            <Empty action={<Button variant="outline-primary">What to do</Button>}>
              There is nothing here yet.
            </Empty>
            <div data-sample>
              <Loading what="the thing" />
            </div>
            <Problem error={new Error("What happened, what is safe, what to do.")} retry={() => undefined} />
            <Stale since="14:05:00" />
          </div>
        </Piece>
      </div>
      <AirframePieces />
      <h2 className="mt-4">Table</h2>
      <Table>
        <thead>
          <tr>
            <th>Thing</th>
            <th className="num">Hours</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>One</td>
            <td className="num">1 204.5</td>
          </tr>
          <tr>
            <td>Other</td>
            <td className="num">7.1</td>
          </tr>
        </tbody>
      </Table>
      <Dialog title="A dialog" open={open} onClose={() => setOpen(false)}>
        <p className="m-0">Escape or the cross closes it.</p>
      </Dialog>
    </>
  );
}
