import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { api, ask, newId } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../app/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, NumberField, TextField } from "../parts/Field";
import { parseInRange } from "../parts/number";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, Problem, QueryView } from "../parts/states";

/** The site files of the crew: charted once, used again. */
export function SitesView() {
  const q = useQuery({ queryKey: keys.sites, queryFn: () => ask(api.GET("/sites")) });
  const may = useMay()("pilot", "crew");
  const [words, setWords] = useState("");
  const [add, setAdd] = useState(false);
  return (
    <>
      <ViewHead title="Sites">
        <input
          className="form-control"
          style={{ width: 230 }}
          placeholder="Name or note"
          aria-label="Words in name or note"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        {may && <Button onClick={() => setAdd(true)}>New site</Button>}
      </ViewHead>
      <QueryView query={q} what="the sites">
        {({ sites }) => {
          const shown = sites.filter((s) =>
            `${s.name} ${s.note}`.toLowerCase().includes(words.trim().toLowerCase()),
          );
          if (sites.length === 0)
            return (
              <Empty>No site is on file. Begin one with its name and place; then draw on its map.</Empty>
            );
          if (shown.length === 0) return <Empty>No site has these words.</Empty>;
          return (
            <Sheet title={`${shown.length} ${shown.length === 1 ? "site" : "sites"} on file`}>
              <ScrollX label="Sites on file">
                <table className="ledger">
                  <thead>
                    <tr>
                      <th>Site</th>
                      <th>Note</th>
                      <th>Place</th>
                      <th className="num">Elevation</th>
                      <th className="num">On the map</th>
                    </tr>
                  </thead>
                  <tbody>
                    {shown.map((s) => (
                      <tr key={s.id}>
                        <td className="text-nowrap">
                          <Link to={`/sites/${s.id}`}>{s.name}</Link>
                        </td>
                        <td>{s.note}</td>
                        <td className="fig text-nowrap">
                          {s.lat.toFixed(4)}, {s.lon.toFixed(4)}
                        </td>
                        <td className="num">{Math.round(s.elevation_m)} m</td>
                        <td className="num">{s.features}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </ScrollX>
            </Sheet>
          );
        }}
      </QueryView>
      <NewSite open={add} onClose={() => setAdd(false)} />
    </>
  );
}

const fields: [string, string, string, number, number][] = [
  ["lat", "Latitude", "°", -85, 85],
  ["lon", "Longitude", "°", -180, 180],
  ["elevation", "Elevation of the ground", "m", -500, 6000],
];

function NewSite({ open, onClose }: { open: boolean; onClose: () => void }) {
  const qc = useQueryClient();
  const go = useNavigate();
  const [id] = useState(newId);
  const [text, setText] = useState<Record<string, string>>({});
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const [error, setError] = useState<unknown>();
  const put = (k: string, v: string) => setText({ ...text, [k]: v });
  const save = async () => {
    const bad: Record<string, string> = {};
    const v: Record<string, number> = {};
    for (const [k, , unit, min, max] of fields) {
      const e = parseInRange(text[k] ?? "", min, max, unit);
      if (e.ok) v[k] = e.value;
      else bad[k] = e.empty ? "Enter it." : e.sentence;
    }
    if (!text.name?.trim()) bad.name = "Enter what the site is called.";
    setWrong(bad);
    if (Object.keys(bad).length > 0) return;
    setError(undefined);
    try {
      await ask(
        api.POST("/sites", {
          body: {
            id,
            name: text.name ?? "",
            note: text.note ?? "",
            lat: v.lat ?? 0,
            lon: v.lon ?? 0,
            elevation_m: v.elevation ?? 0,
            version: 0,
          },
        }),
      );
      await qc.invalidateQueries({ queryKey: ["site"] });
      await go(`/sites/${id}`);
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Dialog title="New site" open={open} onClose={onClose}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <TextField
          label="Name"
          value={text.name ?? ""}
          wrong={wrong.name}
          maxLength={120}
          onChange={(e) => put("name", e.target.value)}
        />
        {fields.map(([k, label, unit]) => (
          <NumberField
            key={k}
            label={label}
            unit={unit}
            value={text[k] ?? ""}
            wrong={wrong[k]}
            onChange={(e) => put(k, e.target.value)}
          />
        ))}
        <AreaField
          label="Note"
          rows={2}
          value={text.note ?? ""}
          onChange={(e) => put("note", e.target.value)}
        />
        {error !== undefined && <Problem error={error} />}
        <Button type="submit">Begin the site file</Button>
      </form>
    </Dialog>
  );
}
