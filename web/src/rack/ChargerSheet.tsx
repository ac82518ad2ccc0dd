import { useCharge } from "./api";
import { tiles } from "../parts/columns";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, ProblemError, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { CellBars } from "../drawings/CellBars";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";

type Channel = Schemas["ChargerChannel"];
type Pack = Schemas["Pack"];

/** The charger on the network: what each channel does, and putting packs on it. */
export function ChargerSheet({ packs }: { packs: Pack[] }) {
  const q = useQuery({
    queryKey: keys.charger,
    queryFn: () => ask(api.GET("/charger")),
    refetchInterval: 5000,
  });
  return (
    <Sheet title="The charger on the network">
      <QueryView query={q} what="the charger">
        {(s) => (
          <>
            {!s.reachable && (
              <p className="m-0">
                {s.configured && <VerdictMark verdict="watch" />} {s.sentence}
              </p>
            )}
            <div className="tiles" style={tiles(250)}>
              {s.channels.map((c) => (
                <OneChannel key={c.channel} c={c} packs={packs} />
              ))}
            </div>
          </>
        )}
      </QueryView>
    </Sheet>
  );
}

function OneChannel({ c, packs }: { c: Channel; packs: Pack[] }) {
  const qc = useQueryClient();
  const put = useCharge();
  const may = useMay();
  const [pack, setPack] = useState("");
  const [target, setTarget] = useState<"full" | "storage">("full");
  const [error, setError] = useState<unknown>();
  const felt = error instanceof ProblemError && error.type === "feel-it";
  const act = async (body?: Schemas["StartCharge"]) => {
    setError(undefined);
    try {
      qc.setQueryData(keys.charger, await put.mutateAsync({ channel: c.channel, body }));
      setPack("");
    } catch (e) {
      setError(e);
    }
  };
  const charge = (sure: boolean) => act({ pack_id: pack, target, felt: sure });
  const can = packs.filter((p) => p.moves.includes("charging") && p.verdict !== "stop");
  const low = c.cell_mv.length ? Math.min(...c.cell_mv) - 150 : 3000;
  return (
    <div className="border p-3 vstack gap-2">
      <div className="d-flex justify-content-between gap-2">
        <strong>Channel {c.channel}</strong>
        {c.percent != null && <span className="fig">{Math.round(c.percent)} %</span>}
      </div>
      {c.pack_id ? (
        <>
          <Link to={`/packs/${c.pack_id}`}>{c.label}</Link>{" "}
          <span className="soft">{c.target === "full" ? "to full" : "to storage level"}</span>
          {c.cell_mv.length > 0 && (
            <CellBars
              mv={c.cell_mv}
              from={low}
              to={Math.max(...c.cell_mv) + 20}
              label={c.sentence}
              height={44}
            />
          )}
        </>
      ) : null}
      <div>
        {c.verdict !== "clear" && <VerdictMark verdict={c.verdict} />} {c.sentence}
      </div>
      {error !== undefined && <Problem error={error} />}
      {may("pilot", "crew", "technician") &&
        (c.pack_id ? (
          <Button size="sm" variant="outline-primary" onClick={() => void act()}>
            Stop channel {c.channel}
          </Button>
        ) : (
          c.phase === "idle" && (
            <div className="d-flex gap-2 flex-wrap">
              <Form.Select
                aria-label={`Pack for channel ${c.channel}`}
                value={pack}
                onChange={(e) => {
                  setPack(e.target.value);
                  setError(undefined); // felt was another one
                }}
              >
                <option value="">Choose a pack</option>
                {can.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.label} ({p.percent == null ? "?" : Math.round(p.percent)} %)
                  </option>
                ))}
              </Form.Select>
              <Form.Select
                aria-label={`To what level on channel ${c.channel}`}
                value={target}
                onChange={(e) => setTarget(e.target.value as "full" | "storage")}
              >
                <option value="full">to full</option>
                <option value="storage">to storage level</option>
              </Form.Select>
              <Button disabled={!pack} onClick={() => void charge(felt)}>
                {felt ? "Felt it, neither cold nor hot: charge" : "Charge"}
              </Button>
            </div>
          )
        ))}
    </div>
  );
}
