import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { CellsField } from "../parts/CellsField";
import { VerdictMark } from "../parts/Flag";
import { parseNumber } from "../parts/number";

/** The first hover: outputs of the motors, held against each other. */
export function Hover({ f }: { f: Schemas["Flight"] }) {
  const [set, setSet] = useState<string[]>([]);
  const [judged, setJudged] = useState(f.hover);
  const [wrong, setWrong] = useState("");
  const judge = async () => {
    const outputs = Array.from({ length: f.type.motors }, (_, i) => parseNumber(set[i] ?? ""));
    const bad = outputs.findIndex((p) => !p.ok);
    if (bad >= 0) {
      setWrong(`Motor ${bad + 1}: enter its output.`);
      return;
    }
    try {
      setWrong("");
      setJudged(
        await ask(
          api.PUT("/flights/{id}/hover", {
            params: { path: { id: f.id } },
            body: { outputs: outputs.map((p) => (p.ok ? p.value : 0)) },
          }),
        ),
      );
    } catch (e) {
      setWrong(e instanceof Error ? e.message : "Not saved.");
    }
  };
  return (
    <details className="mt-3">
      <summary style={{ minHeight: 48, paddingTop: 10 }}>First minute: hover and read the motors</summary>
      <CellsField
        label="Output of each motor"
        unit="%"
        name={(i) => `Motor ${i + 1}`}
        count={f.type.motors}
        values={set}
        onChange={setSet}
        wrong={wrong}
      />
      <Button variant="outline-primary" onClick={() => void judge()}>
        Judge
      </Button>
      {judged && (
        <div className={`judged mt-2 ${judged.verdict}`} role="status">
          <VerdictMark verdict={judged.verdict} /> {judged.sentence}
          <div className="soft">Against: {judged.against}</div>
        </div>
      )}
    </details>
  );
}
