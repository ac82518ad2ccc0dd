import { useCalculation } from "./api";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Table } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useSession } from "../parts/session";
import { useAddress } from "../parts/address";
import { AreaField, NumberField } from "../parts/Field";
import { Sheet, ViewHead } from "../parts/Sheet";
import { useSoon } from "../parts/useSoon";
import { Empty, Problem, QueryView } from "../parts/states";
import { inUnit, otherUnit, readInputs, shown, typedInputs, unitLabel } from "./model";

/** One calculator: live, in both systems of units, with formula, limits and source; its inputs are in the address. */
export function CalculatorView() {
  const { key = "" } = useParams();
  const q = useQuery({ queryKey: keys.bench, queryFn: () => ask(api.GET("/bench")), staleTime: Infinity });
  return (
    <QueryView query={q} what="the calculators">
      {(d) => {
        const c = d.calculators.find((x) => x.key === key);
        return c ? <Calculator key={c.key} c={c} /> : <Empty>There is no such calculator.</Empty>;
      }}
    </QueryView>
  );
}

function Calculator({ c }: { c: Schemas["Calculator"] }) {
  const { units } = useSession();
  const [params, set] = useAddress();
  const [typed, setTyped] = useState(() => typedInputs(c.inputs, params));
  const { values, wrong } = readInputs(c.inputs, typed, units);
  const [text, setText] = useState(() => params.get("text") ?? c.text_default);
  const read = useSoon(text);
  const whole = Object.keys(wrong).length === 0;
  const q = useCalculation(c.key, c.text ? { values: {}, text: read } : { values }, whole);
  const put = (name: string, text: string) => {
    setTyped((t) => ({ ...t, [name]: text }));
    set({ [name]: text });
  };
  return (
    <>
      <ViewHead title={c.title}>
        <Link className="btn btn-outline-primary" to="/bench">
          All calculators
        </Link>
        <Button variant="outline-primary" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      <div className="two">
        <Sheet title="Put in">
          <div className="row row-cols-2 gx-3">
            {c.inputs.map((i) => (
              <NumberField
                key={i.name}
                label={i.label}
                unit={unitLabel(units, i.unit)}
                value={typed[i.name]}
                wrong={wrong[i.name]}
                onChange={(e) => put(i.name, e.target.value)}
              />
            ))}
          </div>
          {c.text && (
            <AreaField
              label={c.text}
              value={text}
              onChange={(e) => {
                setText(e.target.value);
                set({ text: e.target.value });
              }}
            />
          )}
          {!c.text && <p className="soft mb-0">A unit may be typed behind a number, like 59 ft or 12 mph.</p>}
        </Sheet>
        <div className="vstack gap-3">
          <Sheet title="Comes out">
            <div aria-live="polite" aria-busy={q.isFetching}>
              {q.error && whole ? <Problem error={q.error} /> : null}
              {!whole && <p className="soft">Correct what is marked; then the answer follows.</p>}
              {whole && !q.error && q.data && <Results d={q.data} units={units} />}
            </div>
          </Sheet>
          <Sheet title="How">
            <p>
              <code className="fig text-wrap text-reset">{c.formula}</code>
            </p>
            {c.limits && <p>{c.limits}</p>}
            <p className="soft mb-0">{c.source} The maker&rsquo;s manual, the label and the law decide.</p>
          </Sheet>
        </div>
      </div>
    </>
  );
}

function Results({ d, units }: { d: Schemas["CalculatorResults"]; units: Schemas["Unit"][] }) {
  return (
    <>
      <Table>
        <tbody>
          {d.results.map((r) => {
            const other = otherUnit(units, r.unit);
            return (
              <tr key={r.label}>
                <td>{r.label}</td>
                <td className="num">
                  <strong>{shown(r.value, r.digits)}</strong> {unitLabel(units, r.unit)}
                  {other && (
                    <span className="soft d-block">
                      {shown(inUnit(other, r.value), r.digits)} {other.label}
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      {d.says && <p className="mb-0 mt-2">{d.says}</p>}
    </>
  );
}
