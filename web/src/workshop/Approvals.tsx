import { wrote } from "../api/touched";
import { useTypes } from "../api/queries";
import { useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { api, ask, type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField, SelectField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { kindName, kindsOf } from "./partKinds";

export function Approvals({ s, onAdd }: { s: Schemas["Stock"]; onAdd?: () => void }) {
  const z = useZone();
  return (
    <Sheet
      title="Third-party parts the crew has approved"
      aside={
        onAdd && (
          <Button variant="outline-primary" className="no-print" onClick={onAdd}>
            Approve a kind
          </Button>
        )
      }
    >
      <p className="soft">
        An identical look proves nothing: without an approval, only the maker&rsquo;s parts are fitted.
      </p>
      {s.approvals.length === 0 && <p className="m-0">None.</p>}
      <ul className="mb-0 ps-3">
        {s.approvals.map((a) => (
          <li key={a.kind + a.type_key}>
            {kindName(a.kind)} for {a.type_key}: {a.note}{" "}
            <span className="soft">
              ({a.by}, {z.date(a.at)})
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

export function Approve({ onClose }: { onClose: () => void }) {
  const qc = useQueryClient();
  const types = useTypes();
  const f = useDraftForm("approve-parts", { type_key: "", kind: "", note: "" });
  const send = f.submit(async (v) => {
    await ask(api.POST("/approvals", { body: v }));
    f.reset({ type_key: "", kind: "", note: "" });
    onClose();
    await wrote(qc, "stock_lines", "part_approvals");
  });
  return (
    <Dialog title="Approve third-party parts" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="For which type" {...f.register("type_key")} wrong={f.wrong("type_key")}>
          <option value="">Choose</option>
          {types.data?.types.map((t) => (
            <option key={t.profile.key} value={t.profile.key}>
              {t.profile.name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Kind" {...f.register("kind")} wrong={f.wrong("kind")}>
          <option value="">Choose</option>
          {kindsOf(types.data?.types, f.watch("type_key")).map((k) => (
            <option key={k} value={k}>
              {kindName(k)}
            </option>
          ))}
        </SelectField>
        <AreaField
          label="What was measured or known, and by whom"
          {...f.register("note")}
          wrong={f.wrong("note")}
        />
        <Button type="submit" className="w-100" disabled={f.formState.isSubmitting}>
          Approve
        </Button>
      </form>
    </Dialog>
  );
}
