import { useFleet } from "../api/queries";
import { useQuery } from "@tanstack/react-query";
import QRCode from "qrcode";
import { Button } from "react-bootstrap";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { gearKinds } from "../evening/GearList";
import { usePacks } from "../api/queries";
import { useAddress } from "../parts/address";
import { ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";

interface Label {
  code: string;
  title: string;
  line: string;
}

/** Printable labels: what each opens stands in its square code, and in words for eyes. */
export function LabelsView() {
  const [params, set] = useAddress();
  const of = params.get("of") ?? "packs";
  const packs = usePacks();
  const fleet = useFleet();
  return (
    <>
      <ViewHead title="Labels">
        <select
          className="form-select"
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
        </select>
        <Button className="no-print" onClick={() => print()}>
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

function Sheet({ labels }: { labels: Label[] }) {
  if (labels.length === 0) return <Empty>There is nothing to label yet.</Empty>;
  return (
    <ul className="labels">
      {labels.map((l) => (
        <li key={l.code}>
          <Square text={`${location.origin}/l/${encodeURIComponent(l.code)}`} label={l.title} />
          <div>
            <strong>{l.title}</strong>
            <div className="fig">{l.line}</div>
          </div>
        </li>
      ))}
    </ul>
  );
}

/** A square code drawn as one path, dark on light whatever the theme, so that any scanner reads it. */
function Square({ text, label }: { text: string; label: string }) {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
  const n = modules.size;
  let d = "";
  for (let y = 0; y < n; y++)
    for (let x = 0; x < n; x++) if (modules.get(y, x)) d += `M${x + 4} ${y + 4}h1v1h-1z`;
  return (
    <svg
      viewBox={`0 0 ${n + 8} ${n + 8}`}
      width="112"
      height="112"
      role="img"
      aria-label={`Square code of ${label}`}
      shapeRendering="crispEdges"
    >
      <path d={`M0 0h${n + 8}v${n + 8}H0z`} fill="#fff" />
      <path d={d} fill="#000" />
    </svg>
  );
}
