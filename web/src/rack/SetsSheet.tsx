import { Rows } from "../parts/Rows";
import { ListGroup } from "react-bootstrap";
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";

/** The best pairing of charged packs for aircraft that fly on two. */
export function SetsSheet() {
  const q = useQuery({ queryKey: keys.sets, queryFn: () => ask(api.GET("/packs/sets")) });
  return (
    <Sheet title="Sets for twin-pack aircraft">
      <QueryView query={q} what="the sets">
        {(d) =>
          d.models.length === 0 ? (
            <Empty>No charged pack fits an aircraft that flies on two.</Empty>
          ) : (
            <>
              {d.models.map((m) => (
                <div key={m.model} className="mb-2">
                  <h3>{m.model} mAh</h3>
                  {m.sets.length === 0 && <p className="m-0">No two of them make a set.</p>}
                  <Rows cols="110px minmax(0, 1fr) minmax(0, 1.2fr)">
                    {m.sets.map((s) => (
                      <ListGroup.Item as="li" key={s.a}>
                        <strong>{s.labels}</strong>
                        <span>
                          <VerdictMark verdict={s.verdict} /> {s.sentence}
                        </span>
                        <span className="soft fig">cost {s.cost.toFixed(2)}</span>
                      </ListGroup.Item>
                    ))}
                  </Rows>
                  {m.single.length > 0 && (
                    <p className="soft mb-0">Without a partner: {m.single.join(", ")}.</p>
                  )}
                </div>
              ))}
              <p className="soft mb-0">
                Most sets first, then the least cost: volts by 20 mV, capacity by 5 %, cycles by 20,
                resistance by 20 %; over any of these a pair is not allowed.
              </p>
            </>
          )
        }
      </QueryView>
    </Sheet>
  );
}
