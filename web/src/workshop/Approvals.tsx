import { useApproveParts } from "./api";
import { PartKindFields } from "./PartKindFields";
import { Button } from "react-bootstrap";
import { type Schemas } from "../api/client";
import { Dialog } from "../parts/Dialog";
import { AreaField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { kindName } from "./partKinds";

/** Which parts of others a type may carry. */
export function Approvals({ s, onAdd }: { s: Schemas["Stock"]; onAdd?: () => void }) {
  const z = useZone();
  return (
    <Sheet
      title="Third-party parts the crew has approved"
      aside={
        onAdd && (
          <Button variant="outline-primary" className="d-print-none" onClick={onAdd}>
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

/** Allows a part, with what it rests on. */
export function Approve({ onClose }: { onClose: () => void }) {
  const approveParts = useApproveParts();
  const f = useDraftForm("approve-parts", { type_key: "", kind: "", note: "" });
  const send = f.submit(async (v) => {
    await approveParts.mutateAsync(v);
    f.reset({ type_key: "", kind: "", note: "" });
    onClose();
  });
  return (
    <Dialog title="Approve third-party parts" open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <PartKindFields
          type={f.watch("type_key")}
          register={(n) => f.register(n)}
          wrong={(n) => f.wrong(n)}
        />
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
