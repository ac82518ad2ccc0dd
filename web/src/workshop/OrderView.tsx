import { wrote } from "../api/touched";
import { Explained } from "../parts/Explained";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { api, ask, newId, ProblemError, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { AreaField, NumberField, SelectField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { parseNumber } from "../parts/number";
import { PhotoField } from "../parts/PhotoField";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";
import { useZone } from "../parts/time";
import { causes, orderStates } from "./OrderList";
import { SignOrder } from "./SignOrder";

type Order = Schemas["WorkOrder"];
type Step = Schemas["WorkStep"];

/** One work order: its steps with readings and photos, what was used, and the signature. */
export function OrderView() {
  const { id = "" } = useParams();
  const q = useQuery({
    queryKey: keys.order(id),
    queryFn: () => ask(api.GET("/work-orders/{id}", { params: { path: { id } } })),
  });
  return (
    <QueryView query={q} what="the work order">
      {(o) => <OneOrder o={o} />}
    </QueryView>
  );
}

function OneOrder({ o }: { o: Order }) {
  const z = useZone();
  const may = useMay();
  const works = may("technician") && o.state === "open";
  return (
    <>
      <ViewHead title={o.title}>
        <Link
          className="btn btn-outline-primary no-print"
          to={`/fleet/${o.aircraft_id}?station=${o.station}`}
        >
          {o.aircraft}, {o.station_label}
        </Link>
        <Button variant="outline-primary" className="no-print" onClick={() => print()}>
          Print
        </Button>
        {works && o.cause !== "event" && <Cancel o={o} />}
      </ViewHead>
      <div className="two wide-left">
        <div className="stack">
          <Sheet
            title={orderStates[o.state]}
            aside={<span className="soft">because of: {causes[o.cause]}</span>}
          >
            {o.grounds && o.state === "open" && (
              <p>
                <VerdictMark verdict="stop" /> The aircraft stays on the ground until this is signed.
              </p>
            )}
            {o.why && <p>{o.why}</p>}
            {o.cause_note && (
              <p className="soft">
                {o.cause_note.charAt(0).toUpperCase() + o.cause_note.slice(1).replace(/-/g, " ")}
              </p>
            )}
            <ol className="steps">
              {o.steps.map((s) => (
                <li key={s.step.id}>{works ? <StepEntry o={o} s={s} /> : <StepDone s={s} />}</li>
              ))}
            </ol>
            <p className="soft mb-0">
              Opened by {o.opened_by}, {z.both(o.opened_at)}. The maker&rsquo;s manual decides where it
              differs.
            </p>
          </Sheet>
        </div>
        <div className="stack">
          {works && <SignOrder o={o} />}
          {o.signed_at && (
            <Sheet title="Signed">
              <p>{o.note}</p>
              <p className="soft mb-0">
                {o.signed_by}
                {o.second_by && `, with ${o.second_by}`}, {z.both(o.signed_at)}
              </p>
            </Sheet>
          )}
          {o.acceptance.length > 0 && <AcceptanceFlights o={o} />}
          <Means o={o} works={works} />
        </div>
      </div>
    </>
  );
}

function StepDone({ s }: { s: Step }) {
  const z = useZone();
  return (
    <>
      <div className="d-flex justify-content-between gap-2 flex-wrap">
        <span>{s.step.text}</span>
        {s.at && <VerdictMark verdict={s.verdict} />}
      </div>
      <div className="soft">
        {s.sentence}
        {s.at && ` ${s.by}, ${z.both(s.at)}`}
      </div>
      <Photos ids={s.value?.photos ?? []} />
    </>
  );
}

function Photos({ ids }: { ids: string[] }) {
  if (ids.length === 0) return null;
  return (
    <div className="photos my-1">
      {ids.map((p, i) => (
        <a key={p} href={`/api/v1/photos/${p}`} target="_blank" rel="noreferrer">
          <img src={`/api/v1/photos/${p}`} alt={`Photo ${i + 1} of this step`} />
        </a>
      ))}
    </div>
  );
}

/** One step as it is worked: done, not in order with a note, a reading judged as it is saved, photos. */
function StepEntry({ o, s }: { o: Order; s: Step }) {
  const qc = useQueryClient();
  const r = s.step.reading;
  const [number, setNumber] = useState(s.value?.number?.toString() ?? "");
  const [photos, setPhotos] = useState<string[]>(s.value?.photos ?? []);
  const [odd, setOdd] = useState(s.value?.not_ok ?? false);
  const [note, setNote] = useState(s.value?.note ?? "");
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const save = async (value: Schemas["StepEntry"]) => {
    setWrong("");
    setBusy(true);
    try {
      const fresh = await ask(
        api.PUT("/work-orders/{id}/entries", {
          params: { path: { id: o.id } },
          body: { entries: [{ step_id: s.step.id, value }] },
        }),
      );
      qc.setQueryData(keys.order(o.id), fresh);
    } catch (e) {
      setWrong(
        e instanceof ProblemError ? e.message : "It was not saved. Try again; what you entered stays here.",
      );
    }
    setBusy(false);
  };
  const done = () => {
    if (!r) return save({ done: true, photos });
    const n = parseNumber(number);
    if (!n.ok) {
      setWrong(n.empty ? `Enter the ${r.quantity}.` : n.sentence);
      return;
    }
    return save({ number: n.value, photos });
  };
  const doneWords = r ? "Save the reading" : s.at && s.verdict === "clear" ? "Done again" : "Done";
  return (
    <div className={s.at ? `judged ${s.verdict}` : "judged none"}>
      <strong>{s.step.text}</strong>
      {r && (
        <NumberField
          label={`${r.quantity}: ${r.bands.map((b) => `${b.target} ± ${b.tolerance}`).join(" or ")}`}
          unit={r.unit}
          value={number}
          onChange={(e) => setNumber(e.target.value)}
        />
      )}
      {s.step.photo && <PhotoField photos={photos} onChange={setPhotos} />}
      {odd && (
        <AreaField label="What is not in order" value={note} onChange={(e) => setNote(e.target.value)} />
      )}
      {wrong && (
        <div className="field mb-1">
          <div className="wrong" role="alert">
            {wrong}
          </div>
        </div>
      )}
      <div className="d-flex gap-2 flex-wrap align-items-center mt-1">
        {!odd && (
          <Button
            size="sm"
            disabled={busy}
            onClick={() => void done()}
            aria-label={`${doneWords}: ${s.step.text}`}
          >
            {doneWords}
          </Button>
        )}
        {odd ? (
          <>
            <Button
              size="sm"
              variant="danger"
              disabled={busy}
              onClick={() => void save({ not_ok: true, note, photos })}
            >
              Save as not in order
            </Button>
            <Button size="sm" variant="outline-primary" onClick={() => setOdd(false)}>
              Back
            </Button>
          </>
        ) : (
          <Button size="sm" variant="outline-primary" onClick={() => setOdd(true)}>
            Not in order
          </Button>
        )}
        {s.at && (
          <span>
            <VerdictMark verdict={s.verdict} /> <Explained text={s.sentence} />{" "}
            <span className="soft">{s.by}</span>
          </span>
        )}
      </div>
    </div>
  );
}

function AcceptanceFlights({ o }: { o: Order }) {
  const z = useZone();
  const next = o.acceptance.find((a) => !a.at);
  const name = (l: string) => (l === "no-load" ? "without load" : "with load");
  return (
    <Sheet title="Acceptance flights">
      <ul className="mb-2 ps-3">
        {o.acceptance.map((a) => (
          <li key={a.load}>
            {name(a.load)}:{" "}
            {a.at ? `flown ${z.both(a.at)}` : o.state === "signed" ? "due" : "after the signature"}
          </li>
        ))}
      </ul>
      {o.state === "signed" && next && (
        <Link className="btn btn-primary" to={`/gate/${o.aircraft_id}?acceptance=${o.id}`}>
          Ask the gate for the flight {name(next.load)}
        </Link>
      )}
    </Sheet>
  );
}

/** Tools, parts needed and what was taken from the shelf. */
function Means({ o, works }: { o: Order; works: boolean }) {
  return (
    <Sheet title="Tools and parts">
      {o.tools.length > 0 && (
        <>
          <h3>Tools</h3>
          <ul className="ps-3">
            {o.tools.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ul>
        </>
      )}
      {o.parts.length > 0 && (
        <p>
          Parts needed: {o.parts.map((p) => `${p.count} × ${p.kind.replace(/-/g, " ")}`).join(", ")}. Parts
          with a serial number are{" "}
          <Link to={`/fleet/${o.aircraft_id}?station=${o.station}`}>fitted at their position</Link>, which
          takes them from the shelf.
        </p>
      )}
      <h3>Taken from the shelf</h3>
      {o.used.length === 0 && <p className="soft">Nothing yet.</p>}
      <ul className="ps-3">
        {o.used.map((x) => (
          <li key={x.id}>
            {x.quantity} × {x.name} <span className="soft">({x.by})</span>
          </li>
        ))}
      </ul>
      {works && <TakeStock o={o} />}
    </Sheet>
  );
}

function TakeStock({ o }: { o: Order }) {
  const qc = useQueryClient();
  const stock = useQuery({ queryKey: keys.stock, queryFn: () => ask(api.GET("/stock")) });
  const [id, setId] = useState(newId);
  const f = useDraftForm(`take-${o.id}`, { line_id: "", quantity: "1" });
  const lines = stock.data?.lines.filter((l) => l.kind === "") ?? [];
  if (lines.length === 0) return null;
  const send = f.submit(async (v) => {
    const n = parseNumber(v.quantity);
    if (!n.ok || !Number.isInteger(n.value)) {
      f.setError("quantity", { message: "Enter a whole number." });
      return;
    }
    if (!v.line_id) {
      f.setError("line_id", { message: "Choose what was taken." });
      return;
    }
    const fresh = await ask(
      api.POST("/work-orders/{id}/parts", {
        params: { path: { id: o.id } },
        body: { id, line_id: v.line_id, quantity: n.value },
      }),
    );
    qc.setQueryData(keys.order(o.id), fresh);
    setId(newId());
    f.reset({ line_id: "", quantity: "1" });
  });
  return (
    <form onSubmit={send} noValidate>
      {f.root && <Problem error={new Error(f.root)} />}
      <SelectField label="From stock" {...f.register("line_id")} wrong={f.wrong("line_id")}>
        <option value="">Choose</option>
        {lines.map((l) => (
          <option key={l.id} value={l.id}>
            {l.name} ({l.on_hand} there)
          </option>
        ))}
      </SelectField>
      <NumberField label="How many" unit="" {...f.register("quantity")} wrong={f.wrong("quantity")} />
      <Button type="submit" size="sm" variant="outline-primary">
        Take it
      </Button>
    </form>
  );
}

function Cancel({ o }: { o: Order }) {
  const qc = useQueryClient();
  const [open, setOpen] = useState(false);
  const f = useDraftForm(`cancel-${o.id}`, { reason: "" });
  const send = f.submit(async (v) => {
    await ask(api.POST("/work-orders/{id}/cancel", { params: { path: { id: o.id } }, body: v }));
    setOpen(false);
    await wrote(qc, "work_orders", "work_entries", "work_used", "parts");
  });
  return (
    <>
      <Button variant="outline-danger" className="no-print" onClick={() => setOpen(true)}>
        Cancel it
      </Button>
      <Dialog title={`Cancel: ${o.title}`} open={open} onClose={() => setOpen(false)}>
        <form onSubmit={send} noValidate>
          {f.root && <Problem error={new Error(f.root)} />}
          <AreaField
            label="Why it was opened by mistake"
            {...f.register("reason")}
            wrong={f.wrong("reason")}
          />
          <Button type="submit" variant="danger" className="w-100">
            Cancel the work order
          </Button>
        </form>
      </Dialog>
    </>
  );
}
