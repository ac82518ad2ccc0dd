import { useFleet } from "../api/queries";
import { useSearchParams } from "react-router";
import { SelectField } from "../parts/Field";
import { ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { For } from "./NewOrderForm";

/** Opens a work order: for a task of the programme, for a defect, or with its own steps. */
export function NewOrderView() {
  const fleet = useFleet();
  const [params, set] = useSearchParams();
  const chosen = params.get("aircraft") ?? "";
  return (
    <>
      <ViewHead title="Open a work order" />
      <QueryView query={fleet} what="the fleet">
        {(f) =>
          f.aircraft.length === 0 ? (
            <Empty>There is no aircraft yet.</Empty>
          ) : (
            <div className="vstack gap-3" style={{ maxWidth: 760 }}>
              <SelectField
                label="Aircraft"
                value={chosen}
                onChange={(e) => set({ aircraft: e.target.value }, { replace: true })}
              >
                <option value="">Choose</option>
                {f.aircraft.map((a) => (
                  <option key={a.aircraft.id} value={a.aircraft.id}>
                    {a.aircraft.name}
                  </option>
                ))}
              </SelectField>
              {chosen && <For key={chosen} aircraft={chosen} />}
            </div>
          )
        }
      </QueryView>
    </>
  );
}
