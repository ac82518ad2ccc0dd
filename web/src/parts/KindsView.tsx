import type { UseQueryResult } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { Button, Table } from "react-bootstrap";
import { ScrollX } from "./ScrollX";
import { Sheet, ViewHead } from "./Sheet";
import { Empty, QueryView } from "./states";

interface Kind {
  id: string;
  name: string;
  active: boolean;
}

export interface KindsViewProps<D, K extends Kind> {
  /** What the list is of, like "Nozzles", and one of them, like "nozzle". */
  title: string;
  one: string;
  heading: string;
  intro: ReactNode;
  query: UseQueryResult<D>;
  kinds: (d: D) => K[];
  /** The columns after the name. */
  columns: { head: string; cell: (k: K) => ReactNode }[];
  may: boolean;
  /** The dialog that changes one, or adds a new one. */
  dialog: (k: K | undefined, close: () => void) => ReactNode;
}

/** A list of kinds that plans choose from: looked at by everybody, changed by whoever may. */
export function KindsView<D, K extends Kind>(v: KindsViewProps<D, K>) {
  const [open, setOpen] = useState<K | "new">();
  const add = v.may && <Button onClick={() => setOpen("new")}>Add a {v.one}</Button>;
  return (
    <>
      <ViewHead title={v.title}>{add}</ViewHead>
      <Sheet title={v.heading}>
        <p>{v.intro}</p>
        <QueryView query={v.query} what={`the ${v.title.toLowerCase()}`}>
          {(d) =>
            v.kinds(d).length === 0 ? (
              <Empty action={add}>No {v.one} is on the list.</Empty>
            ) : (
              <ScrollX label={v.title}>
                <Table>
                  <thead>
                    <tr>
                      <th>{v.one[0]!.toUpperCase() + v.one.slice(1)}</th>
                      {v.columns.map((c) => (
                        <th key={c.head}>{c.head}</th>
                      ))}
                      {v.may && <th className="d-print-none">Change</th>}
                    </tr>
                  </thead>
                  <tbody>
                    {v.kinds(d).map((k) => (
                      <tr key={k.id} className={k.active ? undefined : "soft"}>
                        <td>
                          <strong>{k.name}</strong> {!k.active && "not in use"}
                        </td>
                        {v.columns.map((c) => (
                          <td key={c.head}>{c.cell(k)}</td>
                        ))}
                        {v.may && (
                          <td className="d-print-none">
                            <Button
                              variant="outline-primary"
                              aria-label={`Change ${k.name}`}
                              onClick={() => setOpen(k)}
                            >
                              Change
                            </Button>
                          </td>
                        )}
                      </tr>
                    ))}
                  </tbody>
                </Table>
              </ScrollX>
            )
          }
        </QueryView>
      </Sheet>
      {open && v.dialog(open === "new" ? undefined : open, () => setOpen(undefined))}
    </>
  );
}
