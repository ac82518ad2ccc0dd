import { useState } from "react";
import { Button } from "react-bootstrap";
import { useMay } from "../app/session";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useNozzles } from "./api";
import { NozzleDialog } from "./NozzleDialog";
import type { Nozzle } from "./nozzle";

/** The kinds of nozzle that spray plans choose from, with what the maker's table says of them. */
export function NozzlesView() {
  const q = useNozzles();
  const may = useMay()("technician", "chief");
  const [open, setOpen] = useState<Nozzle | "new">();
  const add = may && <Button onClick={() => setOpen("new")}>Add a nozzle</Button>;
  return (
    <>
      <ViewHead title="Nozzles">{add}</ViewHead>
      <Sheet title="Kinds of nozzle">
        <p>
          Enter flow and pressure as the maker&apos;s table gives them. A plan tells when its flow is outside
          of them. The kinds that came with the program are made up: put your own in their place.
        </p>
        <QueryView query={q} what="the nozzles">
          {(d) =>
            d.nozzles.length === 0 ? (
              <Empty action={add}>No nozzle is on the list.</Empty>
            ) : (
              <ScrollX label="Nozzles">
                <table className="ledger">
                  <thead>
                    <tr>
                      <th>Nozzle</th>
                      <th>Flow, L/min</th>
                      <th>Pressure, bar</th>
                      <th>Droplets</th>
                      {may && <th className="no-print">Change</th>}
                    </tr>
                  </thead>
                  <tbody>
                    {d.nozzles.map((n) => (
                      <tr key={n.id} className={n.active ? undefined : "soft"}>
                        <td>
                          <strong>{n.name}</strong> {!n.active && "not in use"}
                        </td>
                        <td>
                          {n.least_l_min} to {n.most_l_min}
                        </td>
                        <td>
                          {n.least_bar} to {n.most_bar}
                        </td>
                        <td>{n.droplets}</td>
                        {may && (
                          <td className="no-print">
                            <Button
                              variant="outline-primary"
                              aria-label={`Change ${n.name}`}
                              onClick={() => setOpen(n)}
                            >
                              Change
                            </Button>
                          </td>
                        )}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </ScrollX>
            )
          }
        </QueryView>
      </Sheet>
      {open && <NozzleDialog nozzle={open === "new" ? undefined : open} onClose={() => setOpen(undefined)} />}
    </>
  );
}
