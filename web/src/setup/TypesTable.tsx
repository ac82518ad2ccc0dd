import { Table } from "react-bootstrap";
import { Link } from "react-router";
import { useMay } from "../parts/session";
import { Airframe } from "../drawings/Airframe";
import { useTypes } from "../api/queries";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useUnits } from "../parts/units";
import { TypeFiles } from "./TypeFiles";

/** The types of this crew, each with its files. */
export function TypesTable() {
  const types = useTypes();
  const may = useMay();
  const u = useUnits();
  return (
    <Sheet title="Aircraft types and their checklists">
      <p>
        A type says how it is laid out, what it may do, what it flies with and how long its parts last. Runs
        and flights keep the version they were made with.
      </p>
      <QueryView query={types} what="the types">
        {(d) => (
          <ScrollX label="Types">
            <Table>
              <thead>
                <tr>
                  <th>Plan</th>
                  <th>Type</th>
                  <th>Limits at flight height</th>
                  <th>Packs</th>
                  <th>Files</th>
                </tr>
              </thead>
              <tbody>
                {d.types.map((t) => (
                  <tr key={t.profile.key}>
                    <td style={{ width: 100 }}>
                      <Airframe type={t} height={72} label={`Plan of ${t.profile.name}`} />
                    </td>
                    <td>
                      <strong>{t.profile.name}</strong>{" "}
                      <span className="soft">version {t.profile.version}</span>
                      <div>{t.profile.work}</div>
                      {may() && (
                        <div>
                          <Link to={`/types/${t.profile.key}`}>Change</Link> ·{" "}
                          <Link to={`/types/${t.profile.key}?copy=1`}>Copy</Link>
                        </div>
                      )}
                    </td>
                    <td>
                      wind {u.show("speed", t.profile.limits.wind_ms)}, gusts{" "}
                      {u.show("speed", t.profile.limits.gust_ms)}
                      <div className="soft">
                        take-off mass {u.show("mass", t.profile.limits.takeoff_mass_kg)}
                      </div>
                    </td>
                    <td>
                      {t.profile.packs.count} × {t.profile.packs.cells} cells {t.profile.packs.chemistry},{" "}
                      {t.profile.packs.capacity_mah} mAh
                    </td>
                    <td>
                      <a href={`/api/v1/types/${t.profile.key}`} download={`${t.profile.key}.json`}>
                        type
                      </a>{" "}
                      ·{" "}
                      <a
                        href={`/api/v1/types/${t.profile.key}/checklist`}
                        download={`${t.profile.key}-checklist.json`}
                      >
                        checklist
                      </a>{" "}
                      (<Link to={`/checklists/${t.profile.key}`}>read and edit</Link>) ·{" "}
                      <a
                        href={`/api/v1/types/${t.profile.key}/programme`}
                        download={`${t.profile.key}-programme.json`}
                      >
                        programme
                      </a>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </ScrollX>
        )}
      </QueryView>
      {may() && (
        <div className="d-flex flex-wrap gap-2 mt-3">
          <Link className="btn btn-outline-primary" to="/types/new">
            Begin a type
          </Link>
          <TypeFiles />
        </div>
      )}
    </Sheet>
  );
}
