import { Table, Form } from "react-bootstrap";
import { useState } from "react";
import { type Schemas } from "../api/client";
import { useAddress } from "../parts/address";
import { Leaves } from "../parts/Leaves";
import { ScrollX } from "../parts/ScrollX";
import { Sheet } from "../parts/Sheet";

/** The rules of a pack, each with what it rests on. */
export function PackTab({ b }: { b: Schemas["RuleBook"] }) {
  const [params, set] = useAddress();
  const name = params.get("pack") ?? b.chosen;
  const pack = [...b.packs, b.practice].find((p) => p.name === name) ?? b.packs[0];
  const [words, setWords] = useState("");
  if (!pack) return null;
  const shown = pack.rules.filter((r) =>
    `${r.id} ${r.citation} ${r.statement}`.toLowerCase().includes(words.trim().toLowerCase()),
  );
  return (
    <div className="vstack gap-3">
      <Leaves
        label="Which pack to read"
        leaves={[...b.packs, b.practice].map((p) => ({
          key: p.name,
          name: p.name === b.chosen ? `${p.name} (chosen)` : p.name,
        }))}
        now={pack.name}
        onChoose={(name) => set({ pack: name === b.chosen ? "" : name })}
      />
      <Sheet
        title={pack.title}
        aside={
          <span className="soft">
            version {pack.version}, reviewed {pack.reviewed_on}
          </span>
        }
      >
        {pack.outline && (
          <p>
            <strong>An outline, not the whole of the law:</strong> it holds the main points. Check the rest
            yourselves.
          </p>
        )}
        <Form.Control
          className="mb-2 d-print-none"
          style={{ maxWidth: 320 }}
          placeholder="Word or paragraph"
          aria-label="Words in the rules"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <ScrollX label="Rules">
          <Table className="paper">
            <thead>
              <tr>
                <th>Source</th>
                <th>What it demands</th>
                <th>Judged by</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((r) => (
                <tr key={r.id}>
                  <td>
                    {r.citation}
                    {r.waivable && <div className="soft">may be waived</div>}
                  </td>
                  <td>
                    {r.statement}
                    {(r.asks ?? []).map((a) => (
                      <div key={a.id} className="soft">
                        Asked for each job: {a.question}
                      </div>
                    ))}
                  </td>
                  <td className="soft">{r.evidence}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </ScrollX>
        {shown.length === 0 && <p className="mb-0">No rule has these words.</p>}
      </Sheet>
    </div>
  );
}
