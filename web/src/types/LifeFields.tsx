import { Table, Form } from "react-bootstrap";
import { Wrong } from "../parts/Field";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";
import { capital } from "../parts/text";
import { lives } from "./figures";
import type { FormOfType } from "./useTypeForm";

/** How long parts last, as the maker says; empty is not limited, and propellers follow the crew's practice then. */
export function LifeFields({ f }: { f: FormOfType }) {
  const positions = f.trial.data?.entry?.positions ?? [];
  const all = [...new Set([...positions.map((p) => p.kind), ...Object.keys(f.now.wear)])].sort();
  return (
    <Sheet title="How long its parts last">
      <ScrollX label="Lives of parts">
        <Table>
          <thead>
            <tr>
              <th>Part</th>
              {lives.map((l) => (
                <th key={l.key}>{capital(l.label)}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {all.map((kind) => (
              <tr key={kind}>
                <td>{capital(kind.replace("-", " "))}</td>
                {lives.map((l) => (
                  <td key={l.key}>
                    <Form.Control
                      inputMode="decimal"
                      aria-label={`${capital(kind.replace("-", " "))}, ${l.label}`}
                      aria-invalid={f.said(`wear.${kind}.${l.key}`) ? true : undefined}
                      {...f.register(`wear.${kind}.${l.key}`)}
                    />
                    {f.said(`wear.${kind}.${l.key}`) && <Wrong>{f.said(`wear.${kind}.${l.key}`)}</Wrong>}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </ScrollX>
    </Sheet>
  );
}
