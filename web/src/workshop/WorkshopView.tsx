import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { OpenDefects } from "./Defects";
import { DueList } from "./DueList";
import { OrderList } from "./OrderList";
import { StockList } from "./StockList";
import { useDefects, useOrders } from "./useLists";

/** The workshop: what falls due, the defects that wait, the work, the shelf. */
export function WorkshopView() {
  const [params] = useAddress();
  const may = useMay();
  const tab = params.get("tab") ?? "due";
  const defects = useDefects();
  const orders = useOrders();
  return (
    <>
      <ViewHead title="Workshop">
        {may("technician") && (
          <Link className="btn btn-primary d-print-none" to="/workshop/orders/new">
            Open a work order
          </Link>
        )}
        <Button variant="outline-primary" className="d-print-none" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      <Tabs
        label="Leaves of the workshop"
        tabs={[
          { key: "due", name: "What falls due" },
          {
            key: "defects",
            name: "Defects",
            count: defects.data?.rows.filter((d) => !d.closed_at).length,
          },
          { key: "orders", name: "Work orders", count: orders.data?.rows.length },
          { key: "stock", name: "Stock" },
        ]}
      />
      {tab === "due" && <DueList />}
      {tab === "defects" && (
        <QueryView query={defects} what="the defects">
          {(d) => <OpenDefects defects={d.rows} pages={defects} />}
        </QueryView>
      )}
      {tab === "orders" && <OrderList />}
      {tab === "stock" && <StockList />}
    </>
  );
}
