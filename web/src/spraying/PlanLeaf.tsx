import { columns } from "../parts/columns";
import { useMemo, useState } from "react";
import { newId } from "../api/client";
import { FieldPlan } from "./FieldPlan";
import { KeepBar } from "../parts/KeepBar";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { Figures } from "./Figures";
import { Hours } from "./Hours";
import { Sorties } from "./Sorties";
import { useSavePlan, useTry, type Plan } from "./api";
import { useSoon } from "../parts/useSoon";
import { useWishForm } from "./useWishForm";
import { WayPanel } from "./WayPanel";
import { WishForm } from "./WishForm";

/** The plan: what is wished on one side, what follows from it on the other, at once. */
export function PlanLeaf({ p }: { p: Plan }) {
  const { form, schema, now } = useWishForm(p);
  const save = useSavePlan(p.job_id, p.aircraft_id);
  const [id] = useState(() => p.id ?? newId());
  const typed = useSoon(form.watch());
  const read = useMemo(() => schema.safeParse(typed), [schema, typed]);
  const changed = JSON.stringify(now) !== JSON.stringify(typed);
  const tried = useTry(p.job_id, p.aircraft_id, changed && read.success ? read.data : undefined);
  const shown = changed && tried.data ? tried.data : p;
  const send = form.submit((wish) => save.mutateAsync({ id, version: p.version, wish }));
  return (
    <form onSubmit={send} noValidate>
      {form.root && <Problem error={new Error(form.root)} />}
      <div className="two plan-leaf" style={columns("minmax(0, 2fr) minmax(0, 3fr)")}>
        <WishForm form={form} p={shown} mine={p} />
        <div className="vstack gap-3 order-first order-lg-0" aria-busy={tried.isFetching}>
          {changed && tried.error && <Problem error={tried.error} />}
          <FieldPlan plan={shown} label={`${shown.field_name} with ${shown.passes.length} passes`} />
          <Figures p={shown} onTake={(name, value) => form.setValue(name, value, { shouldDirty: true })} />
        </div>
        <div className="vstack gap-3">
          <Sorties p={shown} />
          <WayPanel p={p} />
          <Hours p={p} />
        </div>
      </div>
      {p.may && (changed || p.version === 0) && (
        <KeepBar wrong={form.first} changed={changed} busy={save.isPending} onBack={() => form.reset(now)} />
      )}
      {!p.may && <Sheet>A pilot plans; what you try here is not kept.</Sheet>}
    </form>
  );
}
