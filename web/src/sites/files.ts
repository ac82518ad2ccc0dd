import { api, ask } from "../api/client";
import { asText, type Fetch } from "../parts/BringIn";

type Format = "geojson" | "kml" | "gpx" | "csv";
export const formats: Format[] = ["geojson", "kml", "gpx", "csv"];
const endings: Record<string, Format> = {
  geojson: "geojson",
  json: "geojson",
  kml: "kml",
  kmz: "kml",
  gpx: "gpx",
  csv: "csv",
};

/** Sends a map file as it is; a packed one is no text. */
export function bring(id: string, file: File, fetch: Fetch, look: boolean) {
  const format = endings[file.name.split(".").pop()?.toLowerCase() ?? ""];
  if (!format) throw new Error(`${file.name} is none of GeoJSON, KML, KMZ, GPX and CSV. Nothing was saved.`);
  return ask(
    api.POST("/sites/{id}/import", {
      params: { path: { id }, query: { format, look } },
      body: file as unknown as string,
      ...asText,
      fetch,
    }),
  );
}

/** Sends a terrain; what it errs by is said as one metre, until somebody says otherwise. */
export const bringTerrain = async (id: string, file: File, fetch: Fetch) =>
  ask(
    api.PUT("/sites/{id}/terrain", {
      params: { path: { id }, query: { name: file.name.slice(0, 120), sigma_m: 1 } },
      body: await file.text(),
      ...asText,
      fetch,
    }),
  );
