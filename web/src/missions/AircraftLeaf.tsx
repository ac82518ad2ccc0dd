import { Button } from "react-bootstrap";
import { MissionMap } from "./MissionMap";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { FileKey } from "../parts/FileKey";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Empty, Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { fileOf, useReadBack, useReadFile, useSend, type Flight, type Plan } from "./api";
import { FlightPick } from "./FlightPick";
import { flightShown, standings } from "./model";

const formats = ["geojson", "kml", "gpx", "csv"];

/** What the aircraft holds: sent, read back, and held against the plan point by point. */
export function AircraftLeaf({ p }: { p: Plan }) {
  const [params] = useAddress();
  const f = flightShown(p, params.get("flight"));
  if (p.version === 0 || !f)
    return (
      <Sheet title="In the aircraft">
        <Empty>Keep a plan first; then its flights can be sent and read back.</Empty>
      </Sheet>
    );
  return (
    <>
      <FlightPick p={p} f={f} />
      <div className="two">
        <div className="vstack gap-3">
          <Sheet title="First after take-off">
            <p className="fs-1 fw-semibold lh-sm">{f.first}</p>
            <p className="soft mb-0">
              Read it aloud before the release. {f.waypoints} waypoints; heights count from take-off.
            </p>
          </Sheet>
          <Exchange p={p} f={f} />
          <Sheet title="As a file">
            <p>
              For a program that stores it in the aircraft. What that holds counts only when it is read back.
            </p>
            <div className="d-flex gap-2 flex-wrap">
              {formats.map((x) => (
                <a
                  key={x}
                  className="btn btn-outline-primary"
                  href={fileOf(p, f.number, x)}
                  download={`flight-${f.number}.${x}`}
                >
                  {x.toUpperCase()}
                </a>
              ))}
            </div>
          </Sheet>
        </div>
        <div className="vstack gap-3">
          <MissionMap
            p={{ ...p, flights: [f] }}
            flight={f.number}
            held={f.standing === "equal" ? undefined : f.read}
            label={`Flight ${f.number} as planned${f.read ? ", and as the aircraft holds it" : ""}`}
          />
          <Differences f={f} />
        </div>
      </div>
    </>
  );
}

function Exchange({ p, f }: { p: Plan; f: Flight }) {
  const may = useMay();
  const send = useSend(p.job_id, p.aircraft_id);
  const read = useReadBack(p.job_id, p.aircraft_id);
  const file = useReadFile(p.job_id, p.aircraft_id);
  const busy = send.isPending || read.isPending || file.isPending;
  const error = send.error ?? read.error ?? file.error;
  const start = () => [send, read, file].forEach((m) => m.reset());
  return (
    <Sheet title="Send and read back">
      <p>
        <VerdictMark verdict={standings[f.standing].verdict} />{" "}
        <strong>
          Flight {f.number}: {standings[f.standing].words}
        </strong>
      </p>
      {error && <Problem error={error} />}
      {may("pilot", "crew") && (
        <div className="d-flex gap-2 flex-wrap">
          {may("pilot") && (
            <Button disabled={busy || !p.link} onClick={() => (start(), send.mutate(f.number))}>
              {send.isPending ? "Sending, and reading back…" : "Send and read back"}
            </Button>
          )}
          <Button
            variant="outline-primary"
            disabled={busy || !p.link}
            onClick={() => (start(), read.mutate(f.number))}
          >
            {read.isPending ? "Reading…" : "Read back alone"}
          </Button>
          <FileKey
            label="A file that was read from it"
            field="Mission file"
            accept=".geojson,.json,.kml,.gpx,.csv"
            onFiles={([chosen]) => {
              start();
              file.mutate({ number: f.number, file: chosen! });
            }}
          />
        </div>
      )}
      <p className="soft mt-2 mb-0">
        {p.link
          ? "Nothing is started from here: the pilot does that at the controller."
          : "There is no link to aircraft here; bring the file that your program read back."}
      </p>
    </Sheet>
  );
}

/** What differs, in words, and what stands against what was read. */
function Differences({ f }: { f: Flight }) {
  const z = useZone();
  const r = f.read;
  if (!r) return null;
  return (
    <Sheet title={r.differences.length === 0 ? "No difference" : `${r.differences.length} differences`}>
      <p className="soft">
        {r.count} waypoints, heights {r.datum}, read from {r.source} by {r.by},{" "}
        <span className="fig">{z.both(r.at)}</span>
        {f.outdated && `: since then ${f.outdated}`}.
      </p>
      <ul className="mb-0">
        {r.differences.map((d, i) => (
          <li key={i}>{d.sentence}</li>
        ))}
        {r.judged.map((b, i) => (
          <li key={`j${i}`}>
            <VerdictMark verdict={b.verdict} /> {b.sentence}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
