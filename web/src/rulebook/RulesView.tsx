import { wrote } from "../api/touched";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay, useSession } from "../parts/session";
import { useAddress } from "../parts/address";
import { NumberField, SelectField } from "../parts/Field";
import { parseInRange } from "../parts/number";
import { ScrollX } from "../parts/ScrollX";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { Tabs } from "../parts/Tabs";
import { useUnits } from "../parts/units";
import { Coverage } from "./Coverage";
import { OwnRules } from "./OwnRules";
import { Reports } from "./Reports";

/** The rule book: what the gate holds a flight against, with source, statement and evidence. */
export function RulesView() {
  const q = useQuery({ queryKey: keys.rules, queryFn: () => ask(api.GET("/rules")) });
  const [params] = useAddress();
  const tab = params.get("tab") ?? "pack";
  const may = useMay()();
  return (
    <>
      <ViewHead title="Rules">
        <Button variant="outline-primary" className="no-print" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      <Tabs
        label="Parts of the rule book"
        tabs={[
          { key: "pack", name: "Rule packs" },
          { key: "chosen", name: "What we fly under" },
          { key: "own", name: "Own rules", count: q.data?.local.length },
          { key: "coverage", name: "Pre-flight list covered" },
          { key: "reports", name: "Reports to the authority" },
        ]}
      />
      <QueryView query={q} what="the rules">
        {(b) => (
          <>
            {tab === "pack" && <PackTab b={b} />}
            {tab === "chosen" && (may ? <Choose key={`${b.chosen}-${b.sight_m}`} b={b} /> : <Chosen b={b} />)}
            {tab === "own" && <OwnRules b={b} />}
            {tab === "coverage" && <Coverage />}
            {tab === "reports" && <Reports />}
            <p className="soft mt-2">{b.caution}</p>
          </>
        )}
      </QueryView>
    </>
  );
}

/** What is chosen, for who may not choose. */
function Chosen({ b }: { b: Schemas["RuleBook"] }) {
  const u = useUnits();
  return (
    <Sheet title="What this crew flies under">
      <p className="mb-0">
        {b.packs.find((p) => p.name === b.chosen)?.title}. The crew sees an aircraft well up to{" "}
        {u.show("length", b.sight_m)}. A chief changes it.
      </p>
    </Sheet>
  );
}

function PackTab({ b }: { b: Schemas["RuleBook"] }) {
  const [params, set] = useAddress();
  const name = params.get("pack") ?? b.chosen;
  const pack = [...b.packs, b.practice].find((p) => p.name === name) ?? b.packs[0];
  const [words, setWords] = useState("");
  if (!pack) return null;
  const shown = pack.rules.filter((r) =>
    `${r.id} ${r.citation} ${r.statement}`.toLowerCase().includes(words.trim().toLowerCase()),
  );
  return (
    <div className="stack">
      <div className="leaves no-print" role="group" aria-label="Which pack to read">
        {[...b.packs, b.practice].map((p) => (
          <button
            key={p.name}
            type="button"
            aria-pressed={p.name === pack.name}
            onClick={() => set({ pack: p.name === b.chosen ? "" : p.name })}
          >
            {p.name}
            {p.name === b.chosen && " (chosen)"}
          </button>
        ))}
      </div>
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
        <input
          className="form-control mb-2 no-print"
          style={{ maxWidth: 320 }}
          placeholder="Word or paragraph"
          aria-label="Words in the rules"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <ScrollX label="Rules">
          <table className="ledger paper">
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
                    {r.waivable && <div className="evidence">may be waived</div>}
                  </td>
                  <td>
                    {r.statement}
                    {(r.asks ?? []).map((a) => (
                      <div key={a.id} className="evidence">
                        Asked for each job: {a.question}
                      </div>
                    ))}
                  </td>
                  <td className="evidence">{r.evidence}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollX>
        {shown.length === 0 && <p className="mb-0">No rule has these words.</p>}
      </Sheet>
    </div>
  );
}

function Choose({ b }: { b: Schemas["RuleBook"] }) {
  const qc = useQueryClient();
  const u = useUnits();
  const { crew } = useSession();
  const [version, setVersion] = useState(crew.version); // as it was when these choices were shown
  const [pack, setPack] = useState(b.chosen);
  const [sight, setSight] = useState(String(Math.round(u.value("length", b.sight_m))));
  const [error, setError] = useState<unknown>();
  const n = parseInRange(sight, u.value("length", 50), u.value("length", 5000), u.label("length"));
  const save = async () => {
    if (!n.ok) return;
    setError(undefined);
    try {
      await ask(
        api.PUT("/rules", {
          body: {
            pack: pack as "us-small",
            sight_m: u.toBase("length", n.value),
            version,
          },
        }),
      );
      setVersion((v) => v + 1);
      await wrote(qc, "crew");
    } catch (e) {
      setError(e);
    }
  };
  return (
    <Sheet title="What this crew flies under">
      {error !== undefined && <Problem error={error} />}
      <div className="d-flex gap-3 flex-wrap align-items-end">
        <SelectField label="Rule pack" value={pack} onChange={(e) => setPack(e.target.value)}>
          {b.packs.map((p) => (
            <option key={p.name} value={p.name}>
              {p.title}
              {p.outline ? " (outline)" : ""}
            </option>
          ))}
        </SelectField>
        <NumberField
          label="The crew sees an aircraft well up to"
          unit={u.label("length")}
          value={sight}
          onChange={(e) => setSight(e.target.value)}
          wrong={n.ok ? undefined : n.empty ? "Enter how far." : n.sentence}
        />
        <Button className="mb-3" disabled={!n.ok} onClick={() => void save()}>
          Save
        </Button>
      </div>
      <p className="soft mb-0">
        What is changed here is on record. Where crews differ stands under{" "}
        <Link to="/practices">Practices</Link>.
      </p>
    </Sheet>
  );
}
