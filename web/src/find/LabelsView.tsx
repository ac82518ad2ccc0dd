import { useFleet } from "../api/queries";
import { useQuery } from "@tanstack/react-query";
import { Button, Form } from "react-bootstrap";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { gearKinds } from "../evening/EditGear";
import { usePacks } from "../api/queries";
import { useAddress } from "../parts/address";
import { ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { Sheet } from "./LabelSheet";

/** Printable labels: what each opens stands in its square code, and in words for eyes. */
export function LabelsView() {
  const [params, set] = useAddress();
  const of = params.get("of") ?? "packs";
  const packs = usePacks();
  const fleet = useFleet();
  return (
    <>
      <ViewHead title="Labels">
        <Form.Select
          style={{ width: 240 }}
          aria-label="Labels of"
          value={of}
          onChange={(e) => set({ of: e.target.value })}
        >
          <option value="packs">Packs</option>
          <option value="aircraft">Aircraft</option>
          <option value="gear">Gear</option>
          {fleet.data?.aircraft.map((a) => (
            <option key={a.aircraft.id} value={a.aircraft.id}>
              Parts of {a.aircraft.name}
            </option>
          ))}
        </Form.Select>
        <Button className="d-print-none" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      {of === "packs" && (
        <QueryView query={packs} what="the packs">
          {(d) => (
            <Sheet
              labels={d.packs.map((p) => ({
                code: p.serial || p.label,
                title: p.label,
                line: `${p.serial || "no serial number"} · ${p.chemistry} ${p.cells}S`,
              }))}
            />
          )}
        </QueryView>
      )}
      {of === "aircraft" && (
        <QueryView query={fleet} what="the fleet">
          {(d) => (
            <Sheet
              labels={d.aircraft.map(({ aircraft: a }) => ({
                code: a.serial,
                title: a.name,
                line: `${a.serial} · ${a.registration}`,
              }))}
            />
          )}
        </QueryView>
      )}
      {of === "gear" && <GearLabels />}
      {!["packs", "aircraft", "gear"].includes(of) && <PartLabels aircraft={of} />}
    </>
  );
}

function GearLabels() {
  const gear = useQuery({ queryKey: keys.gear, queryFn: () => ask(api.GET("/gear")) });
  return (
    <QueryView query={gear} what="the gear">
      {(d) => (
        <Sheet
          labels={d.gear.map((g) => ({
            code: g.id,
            title: g.name,
            line: gearKinds[g.kind],
          }))}
        />
      )}
    </QueryView>
  );
}

function PartLabels({ aircraft }: { aircraft: string }) {
  const q = useQuery({
    queryKey: keys.aircraft(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id: aircraft } } })),
  });
  return (
    <QueryView query={q} what="the parts">
      {(d) => (
        <Sheet
          labels={d.parts.map((p) => ({
            code: p.serial,
            title: p.serial,
            line: `${p.kind}, fitted to ${d.aircraft.name}`,
          }))}
        />
      )}
    </QueryView>
  );
}
