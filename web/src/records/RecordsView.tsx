import { useAddress } from "../parts/address";
import { ViewHead } from "../parts/Sheet";
import { Tabs } from "../parts/Tabs";
import { useMay } from "../parts/session";
import { ChainCheck } from "./ChainCheck";
import { RecordList } from "./RecordList";

/** The chain of records: what was signed or done, by whom, and whether the chain holds. */
export function RecordsView() {
  const may = useMay();
  const [params] = useAddress();
  return (
    <>
      <ViewHead title="Records">
        {may("pilot", "technician", "reader") && (
          <a className="btn btn-outline-primary" href="/api/v1/records/export" download="records.jsonl">
            Export for a check elsewhere
          </a>
        )}
      </ViewHead>
      <Tabs
        label="Records"
        tabs={[
          { key: "list", name: "On record" },
          { key: "check", name: "Does it hold?" },
        ]}
      />
      {params.get("tab") === "check" ? <ChainCheck /> : <RecordList />}
    </>
  );
}
