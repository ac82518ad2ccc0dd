import { Filters } from "../parts/Filters";
import { Rows } from "../parts/Rows";
import { tiles } from "../parts/columns";
import { ListGroup } from "react-bootstrap";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { useAddress } from "../parts/address";
import { SearchField } from "../parts/SearchField";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { grouped } from "./model";

/** All calculators, each alone, and the day's rotation. */
export function BenchView() {
  const [params, set] = useAddress();
  const words = params.get("q") ?? "";
  const q = useQuery({ queryKey: keys.bench, queryFn: () => ask(api.GET("/bench")), staleTime: Infinity });
  return (
    <>
      <ViewHead title="Bench">
        <Link className="btn btn-primary" to="/rotation">
          The day&rsquo;s rotation
        </Link>
      </ViewHead>
      <Filters>
        <SearchField
          label="Words"
          placeholder="Word, like hover or nozzle"
          value={words}
          onChange={(v) => set({ q: v })}
        />
      </Filters>
      <QueryView query={q} what="the calculators">
        {(d) => {
          const groups = grouped(d, words);
          if (groups.length === 0) return <Empty>No calculator has these words.</Empty>;
          return (
            <div className="tiles" style={tiles(260)}>
              {groups.map((g) => (
                <Sheet key={g.group} title={g.group}>
                  <Rows cols="minmax(0, 1fr)">
                    {g.calculators.map((c) => (
                      <ListGroup.Item as="li" key={c.key}>
                        <Link to={`/bench/${c.key}`}>{c.title}</Link>
                      </ListGroup.Item>
                    ))}
                  </Rows>
                </Sheet>
              ))}
            </div>
          );
        }}
      </QueryView>
    </>
  );
}
