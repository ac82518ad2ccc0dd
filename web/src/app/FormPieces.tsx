import { typedNumber } from "../parts/typed";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { CellBars } from "../drawings/CellBars";
import { CellsField } from "../parts/CellsField";
import { readCells } from "../parts/cells";
import { AreaField, CheckField, NumberField, SelectField, TextField } from "../parts/Field";
import { PinPad } from "../parts/PinPad";
import { Piece } from "./Piece";

/** What is pressed, typed and signed. */
export function FormPieces() {
  const [n, setN] = useState("12,5");
  const [pin, setPin] = useState("");
  const [cells, setCells] = useState(["4,19", "4.20", "4195"]);
  const p = typedNumber(0, 60, "m/s").safeParse(n);
  const c = readCells(cells);
  return (
    <>
      <Piece name="Buttons">
        <div className="d-flex flex-wrap gap-2">
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
          wrong={p.error?.issues[0]?.message}
        />
        <p className="soft" id="parsed">
          Read as: {p.success ? (p.data ?? "nothing") : "not usable"}
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
    </>
  );
}
