import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { Rope } from "../drawings/Rope";
import { VerdictMark } from "../parts/Flag";
import { counted } from "../parts/number";
import { Sheet } from "../parts/Sheet";
import { useZone } from "../parts/time";

type Detail = Schemas["AircraftDetail"];

const removedWords: Record<string, string> = { discard: "discarded", shelf: "to the shelf", swap: "swapped" };

/** A station: how it stands, what is fitted, what has been here. */
export function StationStory({
  d,
  station,
  onFit,
  mayFit,
}: {
  d: Detail;
  station: string;
  onFit: (position: string) => void;
  mayFit: boolean;
}) {
  const z = useZone();
  const s = d.type.stations.find((x) => x.id === station);
  const state = d.stations.find((x) => x.station === station);
  const positions = d.type.positions.filter((p) => p.station === station);
  const history = d.history.filter((h) => positions.some((p) => p.id === h.station));
  if (!s || !state) return null;
  return (
    <Sheet title={s.label} aside={<VerdictMark verdict={state.verdict} />}>
      <p>{state.sentence}</p>
      {positions.map((at) => {
        const part = d.parts.find((x) => x.station === at.id);
        return (
          <div key={at.id} className="mb-2">
            <div className="d-flex justify-content-between gap-2 flex-wrap align-items-center">
              <span>
                {positions.length > 1 && <strong>{at.label}: </strong>}
                {part ? (
                  <>
                    {part.kind.replace(/-/g, " ")}{" "}
                    <Link className="fig" to={`/part/${part.id}`}>
                      {part.serial}
                    </Link>
                    , {part.source === "maker" ? "maker's part" : "third-party part"}, {part.hours.toFixed(1)}{" "}
                    h, {counted(part.flights, "flight")}
                    {part.fitted_at && `, fitted ${z.date(part.fitted_at)}`}
                  </>
                ) : (
                  <span className="soft">nothing recorded</span>
                )}
              </span>
              {mayFit && (
                <Button size="sm" variant="outline-primary" onClick={() => onFit(at.id)}>
                  {part ? "Replace it" : "Fit a part"}
                </Button>
              )}
            </div>
            {part && part.fraction > 0 && (
              <Rope used={part.fraction} verdict={part.verdict} label={part.due} />
            )}
          </div>
        );
      })}
      {history.length > 0 && (
        <>
          <h3 className="mt-3">What has been here</h3>
          <ul className="mb-0 ps-3">
            {history.map((h, i) => (
              <li key={i}>
                <span className="fig">{h.serial}</span>
                {positions.length > 1 && ` (${positions.find((p) => p.id === h.station)?.label})`} from{" "}
                {z.date(h.fitted_at)}
                {h.removed_at
                  ? ` to ${z.date(h.removed_at)} (${removedWords[h.removed_to] ?? h.removed_to})`
                  : ", still fitted"}
                ; {h.by}
              </li>
            ))}
          </ul>
        </>
      )}
    </Sheet>
  );
}
