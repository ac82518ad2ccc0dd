import { Table, Form } from "react-bootstrap";
import { Link } from "react-router";
import { type Schemas } from "../api/client";
import { useAddress } from "../parts/address";
import { LongList } from "../parts/LongList";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { workOrders } from "./model";
import { useOrders } from "./useLists";

export const orderStates: Record<Schemas["WorkOrder"]["state"], string> = {
  open: "Open",
  signed: "Signed, acceptance flight due",
  closed: "Closed",
  cancelled: "Cancelled",
};

export const causes: Record<string, string> = {
  programme: "programme",
  event: "event",
  defect: "defect",
  hand: "by hand",
};

export function OrderList() {
  const [params, set] = useAddress();
  const all = params.get("all") === "yes";
  const q = useOrders(all);
  const z = useZone();
  return (
    <Sheet
      title="Work orders"
      aside={
        <Form.Select
          className="d-print-none"
          style={{ width: 190 }}
          aria-label="Which work orders"
          value={all ? "yes" : ""}
          onChange={(e) => set({ all: e.target.value })}
        >
          <option value="">open ones</option>
          <option value="yes">all of them</option>
        </Form.Select>
      }
    >
      <QueryView query={q} what="the work orders">
        {(d) =>
          d.rows.length === 0 ? (
            <Empty>No work is open. What falls due, a defect or an event opens it.</Empty>
          ) : (
            <LongList
              items={d.rows}
              pages={q}
              what="the work orders"
              orders={workOrders}
              text={(o) => `${o.aircraft} ${o.title} ${orderStates[o.state]} ${o.signed_by}`}
            >
              {(lines) => (
                <ScrollX label="Work orders">
                  <Table>
                    <thead>
                      <tr>
                        <th>Aircraft</th>
                        <th>Work</th>
                        <th>Because of</th>
                        <th>State</th>
                        <th className="num">Steps</th>
                        <th>Opened</th>
                      </tr>
                    </thead>
                    <tbody>
                      {lines.map((o) => (
                        <tr key={o.id}>
                          <td className="text-nowrap">{o.aircraft}</td>
                          <td>
                            <Link to={`/workshop/orders/${o.id}`}>{o.title}</Link>
                            {o.grounds && o.state === "open" && <strong> · grounds it</strong>}
                          </td>
                          <td>{causes[o.cause]}</td>
                          <td>
                            {orderStates[o.state]}
                            {o.signed_by && <span className="soft"> · {o.signed_by}</span>}
                          </td>
                          <td className="num">
                            {o.entered}/{o.steps}
                          </td>
                          <td className="fig text-nowrap">{z.date(o.opened_at)}</td>
                        </tr>
                      ))}
                    </tbody>
                  </Table>
                </ScrollX>
              )}
            </LongList>
          )
        }
      </QueryView>
    </Sheet>
  );
}
