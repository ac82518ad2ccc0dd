import { Filters } from "../parts/Filters";
import { tiles } from "../parts/columns";
import { useMemo, useState } from "react";
import { Button, Form } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Empty } from "../parts/states";
import { orderWords, sorted, type PackOrder } from "./model";
import { PackCard } from "./PackCard";
import { Several } from "./Several";
import { stateOrder, stateWords } from "./states";

type Pack = Schemas["Pack"];

/** The packs in groups of what they are good for now; several can be chosen and moved with one press. */
export function Rack({ packs, q, state }: { packs: Pack[]; q: string; state: string }) {
  const may = useMay()("pilot", "crew", "technician");
  const [params, set] = useAddress();
  const by = (params.get("by") ?? "label") as PackOrder;
  const [chosen, setChosen] = useState<string[]>();
  const groups = useMemo(() => {
    const found = packs.filter(
      (p) =>
        (!state || p.state === state || (state === "flown" && p.state === "hot")) &&
        `${p.label} ${p.serial} ${p.fits.join(" ")}`.toLowerCase().includes(q.toLowerCase()),
    );
    return stateOrder
      .map((s) => ({
        state: s,
        packs: sorted(
          found.filter((p) => p.state === s),
          by,
        ),
      }))
      .filter((g) => g.packs.length > 0);
  }, [packs, q, state, by]);
  if (packs.length === 0)
    return <Empty>There are no packs yet. A technician or chief adds the first one.</Empty>;
  const flip = (id: string) =>
    setChosen((c) => (c?.includes(id) ? c.filter((x) => x !== id) : [...(c ?? []), id]));
  return (
    <>
      <Filters>
        <Form.Select
          aria-label="Order"
          value={by}
          onChange={(e) => set({ by: e.target.value === "label" ? "" : e.target.value })}
        >
          {Object.entries(orderWords).map(([k, w]) => (
            <option key={k} value={k}>
              {w}
            </option>
          ))}
        </Form.Select>
        {may && !chosen && (
          <Button variant="outline-primary" onClick={() => setChosen([])}>
            Choose several
          </Button>
        )}
        {chosen && (
          <Button
            variant="outline-primary"
            onClick={() => setChosen(groups.flatMap((g) => g.packs.map((p) => p.id)))}
          >
            All that are shown
          </Button>
        )}
      </Filters>
      {groups.length === 0 && <Empty>No pack matches.</Empty>}
      <div className="vstack gap-3">
        {groups.map((g) => (
          <section key={g.state}>
            <h2>
              {stateWords[g.state]} <span className="soft fig">{g.packs.length}</span>
            </h2>
            <div className="tiles" style={tiles(190)}>
              {g.packs.map((p) => (
                <PackCard
                  key={p.id}
                  p={p}
                  chosen={chosen?.includes(p.id)}
                  onChoose={chosen && (() => flip(p.id))}
                />
              ))}
            </div>
          </section>
        ))}
        <p className="soft">
          One bar per cell, all of a chemistry on one scale; a cell that is more than 30 mV behind the best is
          tinted.
        </p>
      </div>
      {chosen && (
        <Several chosen={packs.filter((p) => chosen.includes(p.id))} onDone={() => setChosen(undefined)} />
      )}
    </>
  );
}
