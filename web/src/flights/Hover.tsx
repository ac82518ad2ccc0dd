import { readOutputs } from "./logform";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { useAbout } from "../outbox/hooks";
import { CellsField } from "../parts/CellsField";
import { Fold } from "../parts/Fold";
import { VerdictMark } from "../parts/Flag";
import { useFlightPress } from "./api";
import type { Flight } from "./model";

/** The first hover: outputs of the motors, held against each other. */
export function Hover({ f }: { f: Flight }) {
  const [set, setSet] = useState<string[]>([]);
  const [wrong, setWrong] = useState("");
  const press = useFlightPress(f.id);
  const waits = useAbout(f.id).waiting.some((p) => p.kind === "fly.hover");
  const judge = () => {
    const r = readOutputs(set, f.type.motors);
    setWrong("wrong" in r ? r.wrong : "");
    if ("outputs" in r) press("fly.hover", r);
  };
  return (
    <Fold summary="First minute: hover and read the motors">
      <p className="mb-2">
        <Link to={`/walk/start/${f.aircraft_id}?kind=hover`}>The hover check step by step</Link>, with the
        minute running.
      </p>
      <CellsField
        label="Output of each motor"
        unit="%"
        name={(i) => `Motor ${i + 1}`}
        count={f.type.motors}
        values={set}
        onChange={setSet}
        wrong={wrong}
      />
      <Button variant="outline-primary" onClick={judge}>
        Judge
      </Button>
      {waits ? (
        <div className="judged none mt-2" role="status">
          Kept. It is judged as soon as the server answers; until then land if anything sounds or looks odd.
        </div>
      ) : (
        f.hover && (
          <div className={`judged mt-2 ${f.hover.verdict}`} role="status">
            <VerdictMark verdict={f.hover.verdict} /> {f.hover.sentence}
            <div className="soft">Against: {f.hover.against}</div>
          </div>
        )
      )}
    </Fold>
  );
}
