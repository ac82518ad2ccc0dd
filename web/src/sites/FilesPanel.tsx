import { bring, bringTerrain, formats } from "./files";
import { type Schemas } from "../api/client";
import { BringIn } from "../parts/BringIn";
import { Sheet } from "../parts/Sheet";
import { useZone } from "../parts/time";
import { type Kind, kindName } from "./kinds";

/** Files in and out, and the terrain. */
export function FilesPanel({ s, may }: { s: Schemas["Site"]; may: boolean }) {
  const z = useZone();
  const id = s.head.id;
  return (
    <Sheet title="Files and terrain">
      <p className="mb-2">
        Out:{" "}
        {formats.map((f) => (
          <a
            key={f}
            className="btn btn-outline-primary btn-sm me-1"
            href={`/api/v1/sites/${id}/export?format=${f}`}
            download={`${s.head.name}.${f}`}
          >
            {f}
          </a>
        ))}
      </p>
      <p className="mb-2">
        Terrain:{" "}
        {s.terrain
          ? `${s.terrain.source}, ${s.terrain.columns} × ${s.terrain.rows} cells${s.terrain.gaps ? `, ${s.terrain.gaps} gaps` : ""}, ± ${s.terrain.sigma_m} m (${s.terrain.by}, ${z.date(s.terrain.at)})`
          : "none; the ground is taken as level."}
      </p>
      {may && (
        <div className="d-flex gap-2 flex-wrap">
          <BringIn
            label="Bring in a map file"
            writes={["site_features"]}
            field="Map file"
            what="features"
            accept=".geojson,.json,.kml,.kmz,.gpx,.csv"
            mostMB={10}
            called={(k) => kindName(k as Kind).toLowerCase()}
            look={(file, fetch) => bring(id, file, fetch, true)}
            take={(file, fetch) => bring(id, file, fetch, false)}
          />
          <BringIn
            label="Bring in terrain (.asc)"
            writes={["site_terrain", "sites"]}
            field="Terrain file"
            accept=".asc,.txt"
            take={async (file, fetch) => {
              await bringTerrain(id, file, fetch);
              return `The terrain is ${file.name} from now on.`;
            }}
          />
        </div>
      )}
    </Sheet>
  );
}
