import { Table } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useOutside } from "./api";

const rows: { kind: keyof Schemas["OutsideLinks"]; name: string; gives: string; without: string }[] = [
  {
    kind: "charger",
    name: "Charger",
    gives: "cells, resistance and charge of each pack, as they come",
    without: "levels are read by hand, or brought in as a file",
  },
  {
    kind: "weather",
    name: "Weather service",
    gives: "reports and hours for each site",
    without: "reports are pasted, or read by hand",
  },
  {
    kind: "desk",
    name: "Airspace desk",
    gives: "zones, and answers to what is asked for",
    without: "zones are brought in as a file, authorisations entered by hand",
  },
  {
    kind: "aircraft",
    name: "Aircraft link",
    gives: "what an aircraft tells on the walk, and the mission read back",
    without: "both are read on its own screen and entered",
  },
];

/** What the server is connected to, and how the crew works without it. */
export function Outside() {
  const q = useOutside();
  return (
    <QueryView query={q} what="the devices and services">
      {(links) => (
        <Sheet title="Devices and services">
          <ScrollX label="Devices and services">
            <Table>
              <thead>
                <tr>
                  <th>What</th>
                  <th>Now</th>
                  <th>Gives</th>
                  <th>Without it</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <tr key={r.kind}>
                    <td>
                      <strong>{r.name}</strong>
                    </td>
                    <td>{links[r.kind] ? "connected" : "not connected"}</td>
                    <td>{r.gives}</td>
                    <td>{r.without}</td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </ScrollX>
          <p className="soft mb-0">
            Their addresses are set where the server runs. Small stand-ins for each come with the program, to
            try it and to learn; docs/operations.md says how.
          </p>
        </Sheet>
      )}
    </QueryView>
  );
}
