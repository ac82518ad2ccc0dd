import { useState, type ReactNode } from "react";
import { Button } from "react-bootstrap";
import { type StationMark } from "../drawings/AirframeStation";
import { Airframe } from "../drawings/Airframe";
import { CellBars } from "../drawings/CellBars";
import { Rope } from "../drawings/Rope";
import { useTypes } from "../api/queries";
import { CellsField } from "../parts/CellsField";
import { readCells } from "../parts/cells";
import { Dialog } from "../parts/Dialog";
import { AreaField, CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { Hoist, HoistMini } from "../parts/Hoist";
import { parseInRange } from "../parts/number";
import { PinPad } from "../parts/PinPad";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, Loading, Problem, QueryView, Stale } from "../parts/states";
import { verdicts, colours, findings } from "./samples";

function Piece({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Sheet title={name}>
      <div className="mt-2">{children}</div>
    </Sheet>
  );
}

/** Every shared piece in every state, to look at when one is changed. */
export function PartsView() {
  const types = useTypes();
  const [n, setN] = useState("12,5");
  const [pin, setPin] = useState("");
  const [open, setOpen] = useState(false);
  const [cells, setCells] = useState(["4,19", "4.20", "4195"]);
  const p = parseInRange(n, 0, 60, "m/s");
  const c = readCells(cells);
  return (
    <>
      <ViewHead title="Interface pieces">
        <Button onClick={() => setOpen(true)}>Open a dialog</Button>
      </ViewHead>
      <div className="two">
        <Piece name="Verdicts">
          <div className="choice gap-4">
            {verdicts.map((v) => (
              <VerdictMark key={v} verdict={v} big />
            ))}
            {verdicts.map((v) => (
              <VerdictMark key={v} verdict={v} />
            ))}
          </div>
        </Piece>
        <Piece name="Colours of the theme">
          <div className="choice">
            {colours.map((x) => (
              <div key={x}>
                <div
                  style={{
                    width: 84,
                    height: 34,
                    background: `var(--${x})`,
                    border: "1px solid var(--rule)",
                  }}
                />
                <span className="fig">{x}</span>
              </div>
            ))}
          </div>
        </Piece>
        <Piece name="Hoist">
          <Hoist findings={findings} aircraft="none" />
          <p className="mt-3 mb-0">
            Small: <HoistMini findings={findings} /> and empty: <HoistMini findings={[]} />
          </p>
        </Piece>
        <Piece name="Judgement of an entry">
          <div className="stack" style={{ gap: "0.5rem" }}>
            {verdicts.map((v) => (
              <div key={v} className={`judged ${v}`}>
                <VerdictMark verdict={v} /> Bus resistance of 60 Ω.
                <div className="soft">Against: stop under 57, stop over 63</div>
              </div>
            ))}
            <div className="judged none">The verdict appears as soon as there is an entry.</div>
          </div>
        </Piece>
        <Piece name="Buttons">
          <div className="choice">
            <Button>Main act</Button>
            <Button variant="outline-primary">Other act</Button>
            <Button variant="outline-danger">Grave act</Button>
            <Button variant="danger">Grave, confirmed</Button>
            <Button disabled>Not now</Button>
            <Button size="sm" variant="outline-primary">
              Small
            </Button>
            <Button className="btn-big">Under the thumb</Button>
          </div>
        </Piece>
        <Piece name="Fields">
          <NumberField
            label="Number with unit"
            unit="m/s"
            value={n}
            onChange={(e) => setN(e.target.value)}
            hint="0 to 60; point or comma"
            wrong={p.ok || p.empty ? undefined : p.sentence}
          />
          <p className="soft" id="parsed">
            Read as: {p.ok ? p.value : p.empty ? "nothing" : "not usable"}
          </p>
          <TextField label="Text" placeholder="empty" />
          <TextField label="Text with a fault" defaultValue="D1" wrong="Another pack has this label." />
          <SelectField label="Choice">
            <option>one</option>
            <option>other</option>
          </SelectField>
          <AreaField label="Longer text" />
          <CheckField label="A thing to confirm" />
        </Piece>
        <Piece name="Cells">
          <CellsField
            label="Every cell"
            count={3}
            values={cells}
            onChange={setCells}
            wrong={c.ok ? undefined : c.sentence}
          />
          <CellBars
            mv={[4195, 4190, 4150, 4080, 4192, 4194]}
            from={3500}
            to={4250}
            label="Six cells, one behind by 45 mV, one by 115 mV"
            height={80}
          />
        </Piece>
        <Piece name="Signature">
          <PinPad
            value={pin}
            onChange={setPin}
            who="the person signed in"
            statement="What is signed stands here."
            wrong={pin === "1111" ? "This is not your PIN. Nothing was signed." : undefined}
          />
        </Piece>
        <Piece name="Empty, loading, error, stale">
          <div className="stack" style={{ gap: "0.6rem" }}>
            <Empty action={<Button variant="outline-primary">What to do</Button>}>
              There is nothing here yet.
            </Empty>
            <div data-sample>
              <Loading what="the thing" />
            </div>
            <Problem error={new Error("What happened, what is safe, what to do.")} retry={() => undefined} />
            <Stale since="14:05:00" />
          </div>
        </Piece>
        <Piece name="What is left of a life">
          {(
            [
              [0.2, "clear"],
              [0.93, "watch"],
              [1, "stop"],
            ] as const
          ).map(([used, v]) => (
            <div key={v} className="mb-2">
              <Rope used={used} verdict={v} label={`${used * 100} % used`} /> {(used * 24).toFixed(1)} of 24
              hours used
            </div>
          ))}
        </Piece>
      </div>
      <h2 className="mt-4">Airframes</h2>
      <QueryView query={types} what="the types">
        {(d) => (
          <div className="two">
            {d.types.map((t) => {
              const marks: Record<string, StationMark> = Object.fromEntries(
                t.stations.map((s, i) => [
                  s.id,
                  { verdict: verdicts[i % 7 === 2 ? 1 : i % 11 === 4 ? 2 : 0], label: s.label },
                ]),
              );
              return (
                <Sheet key={t.profile.key} title={t.profile.name}>
                  <Airframe
                    type={t}
                    marks={marks}
                    height={330}
                    label={`Plan of ${t.profile.name} with stations in every state`}
                  />
                </Sheet>
              );
            })}
          </div>
        )}
      </QueryView>
      <h2 className="mt-4">Table</h2>
      <table className="ledger">
        <thead>
          <tr>
            <th>Thing</th>
            <th className="num">Hours</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>One</td>
            <td className="num">1 204.5</td>
          </tr>
          <tr>
            <td>Other</td>
            <td className="num">7.1</td>
          </tr>
        </tbody>
      </table>
      <Dialog title="A dialog" open={open} onClose={() => setOpen(false)}>
        <p className="m-0">Escape or the cross closes it.</p>
      </Dialog>
    </>
  );
}
