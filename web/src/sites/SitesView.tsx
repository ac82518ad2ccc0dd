import { useSites } from "../api/queries";
import { useState } from "react";
import { Button, Table, Form } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { SiteForm } from "./SiteForm";
import { SitesMap } from "./SitesMap";

/** The site files of the crew: charted once, used again. */
export function SitesView() {
  const q = useSites();
  const may = useMay()("pilot", "crew");
  const [words, setWords] = useState("");
  const [params] = useAddress();
  const [add, setAdd] = useState(params.get("new") === "1");
  const go = useNavigate();
  return (
    <>
      <ViewHead title="Sites">
        <Form.Control
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
            <>
              <SitesMap sites={shown} />
              <Sheet title={`${shown.length} ${shown.length === 1 ? "site" : "sites"} on file`}>
                <ScrollX label="Sites on file">
                  <Table>
                    <thead>
                      <tr>
                        <th>Site</th>
                        <th>Place</th>
                        <th className="num">Elevation</th>
                        <th className="num">On the map</th>
                      </tr>
                    </thead>
                    <tbody>
                      {shown.map((s) => (
                        <tr key={s.id}>
                          <td>
                            <Link to={`/sites/${s.id}`}>{s.name}</Link>
                            <div className="soft">{s.note}</div>
                          </td>
                          <td className="fig text-nowrap">
                            {s.lat.toFixed(4)}, {s.lon.toFixed(4)}
                          </td>
                          <td className="num">
                            {s.elevation_m == null ? "not known" : `${Math.round(s.elevation_m)} m`}
                          </td>
                          <td className="num">{s.features}</td>
                        </tr>
                      ))}
                    </tbody>
                  </Table>
                </ScrollX>
              </Sheet>
            </>
          );
        }}
      </QueryView>
      <SiteForm open={add} onClose={() => setAdd(false)} onSaved={(id) => void go(`/sites/${id}`)} />
    </>
  );
}
