import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { Link } from "react-router";
import { useMay } from "../parts/session";
import { Sheet, ViewHead } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useUnits } from "../parts/units";
import { usePractices, type Practice } from "./api";
import { Drills } from "../walkround/Drills";
import { ChooseSchool } from "./ChooseSchool";
import { keptInWords } from "./model";

/** Where crews differ: the schools, what this crew keeps, and why the default is the default. */
export function PracticesView() {
  const q = usePractices();
  const [words, setWords] = useState("");
  const [own, setOwn] = useState(false);
  const may = useMay();
  return (
    <>
      <ViewHead title="Practices">
        <Button variant="outline-primary" className="d-print-none" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      <p>
        Crews do these things differently, each for good reasons. What is kept here is used by every judgement
        from the moment it is changed, and every change is on record. A type whose maker demands something
        overrules it; the maker&rsquo;s manual, the product label and the law win over all of it.
      </p>
      <div className="d-flex gap-3 flex-wrap align-items-center mb-3 d-print-none">
        <Form.Control
          style={{ maxWidth: 320 }}
          placeholder="Word, like propeller or wind"
          aria-label="Words in the practices"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <label className="d-flex gap-2 align-items-center">
          <Form.Check.Input
            className="flex-shrink-0 m-0"
            checked={own}
            onChange={(e) => setOwn(e.target.checked)}
          />
          Only what this crew changed
        </label>
      </div>
      <QueryView query={q} what="the practices">
        {(d) => {
          const shown = d.practices.filter((p) => (!own || p.own) && found(p, words));
          return (
            <div className="vstack gap-3">
              {shown.map((p) => (
                <Row key={p.id} p={p} />
              ))}
              {may("pilot", "crew", "technician") && <Drills />}
              {shown.length === 0 && <p>No practice has these words, or none was changed.</p>}
            </div>
          );
        }}
      </QueryView>
    </>
  );
}

function found(p: Practice, words: string): boolean {
  const text = [p.asks, p.why, p.where, ...p.schools.map((s) => s.says)].join(" ").toLowerCase();
  return text.includes(words.trim().toLowerCase());
}

function Row({ p }: { p: Practice }) {
  const may = useMay()();
  const u = useUnits();
  const [open, setOpen] = useState(false);
  return (
    <Sheet title={p.asks} aside={<span className="soft">used by: {p.where}</span>}>
      <p className="mb-1">
        <strong>{keptInWords(p, u)}</strong> <span className="soft">({p.own ? "this crew" : "default"})</span>
      </p>
      {p.overrule.length > 0 && (
        <p className="mb-1">
          Overruled by the maker of{" "}
          {p.overrule.map((t, i) => (
            <span key={t.type_key}>
              {i > 0 && ", "}
              <Link to="/setup">{t.name}</Link>
            </span>
          ))}
          .
        </p>
      )}
      {!open && (
        <>
          <p className="soft mb-1">
            Others:{" "}
            {p.schools
              .filter((s) => s.id !== p.chosen.school)
              .map((s) => s.says)
              .join("; ")}
            .
          </p>
          <p className="soft mb-2">{p.why}</p>
        </>
      )}
      {may && !open && (
        <Button
          variant="outline-primary"
          className="d-print-none"
          aria-label={`Change: ${p.asks}`}
          onClick={() => setOpen(true)}
        >
          Change
        </Button>
      )}
      {open && <ChooseSchool p={p} onDone={() => setOpen(false)} />}
    </Sheet>
  );
}
