import { Table } from "react-bootstrap";
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { useAddress } from "../parts/address";
import { Flag } from "../parts/Flag";
import { Leaves } from "../parts/Leaves";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";

/** The authority's advisory pre-flight list, held against the checklist of each type. */
export function Coverage() {
  const q = useQuery({ queryKey: keys.coverage, queryFn: () => ask(api.GET("/rules/coverage")) });
  const [params, set] = useAddress();
  return (
    <QueryView query={q} what="the coverage">
      {(d) => {
        const t = d.types.find((x) => x.type_key === params.get("type")) ?? d.types[0];
        if (!t) return <Empty>No type has a checklist yet.</Empty>;
        const missing = t.items.filter((i) => i.missing).length;
        return (
          <>
            <Leaves
              label="Which type"
              leaves={d.types.map((x) => ({ key: x.type_key, name: x.type }))}
              now={t.type_key}
              onChoose={(key) => set({ type: key === d.types[0]?.type_key ? "" : key })}
            />
            <Sheet
              title={`${t.type}, checklist ${t.list_version}`}
              aside={
                <span className="soft">
                  {missing === 0 ? "every item is covered" : `${missing} not covered`}
                </span>
              }
            >
              <ScrollX label="Advisory items">
                <Table className="paper">
                  <thead>
                    <tr>
                      <th>Advisory item ({d.source})</th>
                      <th>Checklist item that covers it</th>
                      <th>Elsewhere</th>
                    </tr>
                  </thead>
                  <tbody>
                    {t.items.map((i) => (
                      <tr key={i.item}>
                        <td>
                          <Flag verdict={i.missing ? "stop" : "clear"} size={14} /> {i.item}
                        </td>
                        <td>
                          {i.by.join("; ")}
                          {i.not_here && <span className="soft">The type has nothing of the kind.</span>}
                          {i.missing && <strong>Nothing covers it. Add an item to the checklist.</strong>}
                        </td>
                        <td className="soft">{i.elsewhere}</td>
                      </tr>
                    ))}
                  </tbody>
                </Table>
              </ScrollX>
            </Sheet>
          </>
        );
      }}
    </QueryView>
  );
}
