import { TickField } from "../parts/TickField";
import { useDeclareFit } from "./api";
import { usePeople } from "../api/queries";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import { api, ask, newId } from "../api/client";
import { keys } from "../api/keys";
import { useMay, useSession } from "../parts/session";
import { VerdictMark } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";

/** Each person says for oneself whether one is fit to fly today. */
export function FitToday() {
  const declareFit = useDeclareFit();
  const q = useQuery({ queryKey: keys.fitness, queryFn: () => ask(api.GET("/fitness")) });
  const people = usePeople();
  const { person } = useSession();
  const may = useMay()("pilot", "crew", "technician");
  const z = useZone();
  const [against, setAgainst] = useState<string[]>([]);
  const [error, setError] = useState<unknown>();
  const declare = async () => {
    setError(undefined);
    try {
      await declareFit.mutateAsync({ id: newId(), against });
      setAgainst([]);
    } catch (e) {
      setError(e);
    }
  };
  return (
    <QueryView query={q} what="what was declared">
      {(d) => (
        <div className="two">
          {may && (
            <Sheet title={`${person.name}, today`}>
              {error !== undefined && <Problem error={error} />}
              <p>Take the tick out where it is not so. Nobody flies on a doubt, and nobody asks why.</p>
              {d.points.map((p) => (
                <TickField
                  key={p.id}
                  label={p.question}
                  checked={!against.includes(p.id)}
                  onChange={(e) =>
                    setAgainst(e.target.checked ? against.filter((x) => x !== p.id) : [...against, p.id])
                  }
                />
              ))}
              <Button className="btn-big w-100 mt-2" onClick={() => void declare()}>
                {against.length === 0 ? "I am fit to fly today" : "I do not fly today"}
              </Button>
            </Sheet>
          )}
          <Sheet title="Declared today">
            <ListGroup as="ul" variant="flush">
              {(people.data?.people ?? [])
                .filter((p) => p.active && p.roles.some((r) => r !== "reader"))
                .map((p) => {
                  const x = d.declared.find((y) => y.person_id === p.id);
                  return (
                    <ListGroup.Item as="li" key={p.id}>
                      <VerdictMark verdict={!x ? "watch" : x.against.length ? "stop" : "clear"} /> {p.name}{" "}
                      <span className="soft">
                        {!x
                          ? "has not said anything yet"
                          : x.against.length
                            ? `not fit: ${x.words.join(", ")}`
                            : `fit, ${z.time(x.at)}`}
                      </span>
                    </ListGroup.Item>
                  );
                })}
            </ListGroup>
            <p className="soft mt-2 mb-0">{d.law}</p>
          </Sheet>
        </div>
      )}
    </QueryView>
  );
}
