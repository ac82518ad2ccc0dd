import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Sheet, ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { useUnits } from "../parts/units";
import { Coverage } from "./Coverage";
import { OwnRules } from "./OwnRules";
import { Reports } from "./Reports";
import { PackTab } from "./PackTab";
import { Choose } from "./Choose";

/** The rule book: what the gate holds a flight against, with source, statement and evidence. */
export function RulesView() {
  const q = useQuery({ queryKey: keys.rules, queryFn: () => ask(api.GET("/rules")) });
  const [params] = useAddress();
  const tab = params.get("tab") ?? "pack";
  const may = useMay()();
  return (
    <>
      <ViewHead title="Rules">
        <Button variant="outline-primary" className="d-print-none" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      <Tabs
        label="Parts of the rule book"
        tabs={[
          { key: "pack", name: "Rule packs" },
          { key: "chosen", name: "What we fly under" },
          { key: "own", name: "Own rules", count: q.data?.local.length },
          { key: "coverage", name: "Pre-flight list covered" },
          { key: "reports", name: "Reports to the authority" },
        ]}
      />
      <QueryView query={q} what="the rules">
        {(b) => (
          <>
            {tab === "pack" && <PackTab b={b} />}
            {tab === "chosen" && (may ? <Choose key={`${b.chosen}-${b.sight_m}`} b={b} /> : <Chosen b={b} />)}
            {tab === "own" && <OwnRules b={b} />}
            {tab === "coverage" && <Coverage />}
            {tab === "reports" && <Reports />}
            <p className="soft mt-2">{b.caution}</p>
          </>
        )}
      </QueryView>
    </>
  );
}

/** What is chosen, for who may not choose. */
function Chosen({ b }: { b: Schemas["RuleBook"] }) {
  const u = useUnits();
  return (
    <Sheet title="What this crew flies under">
      <p className="mb-0">
        {b.packs.find((p) => p.name === b.chosen)?.title}. The crew sees an aircraft well up to{" "}
        {u.show("length", b.sight_m)}. A chief changes it.
      </p>
    </Sheet>
  );
}
