import { columns } from "../parts/columns";
import { zodResolver } from "@hookform/resolvers/zod";
import { useMemo, useState } from "react";
import { newId } from "../api/client";
import { MissionMap } from "./MissionMap";
import { MissionSide } from "./MissionSide";
import { useAddress } from "../parts/address";
import { useDraftForm } from "../parts/form";
import { KeepBar } from "../parts/KeepBar";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useUnits } from "../parts/units";
import { useSoon } from "../parts/useSoon";
import { useSavePlan, useTry, type Plan, type Wish } from "./api";
import { Figures } from "./Figures";
import { Flights } from "./Flights";
import { InspectForm } from "./InspectForm";
import { flightShown } from "./model";
import { Parts } from "./Parts";
import { Sun } from "./Sun";
import { SurveyForm } from "./SurveyForm";
import {
  inspectForm,
  surveyForm,
  typedInspect,
  typedSurvey,
  type TypedInspect,
  type TypedSurvey,
} from "./wish";

type Typed = TypedSurvey | TypedInspect;

/** The boxes of a plan, and what is wished by them. */
function useWishForm(p: Plan) {
  const u = useUnits();
  const schema = useMemo(
    () =>
      p.kind === "survey"
        ? surveyForm(u, p.wish.survey!).transform((survey): Wish => ({ survey }))
        : inspectForm(u, p.wish.inspect!).transform((inspect): Wish => ({ inspect })),
    [p.kind, p.wish, u],
  );
  const now = useMemo<Typed>(
    () => (p.wish.survey ? typedSurvey(p.wish.survey, u) : typedInspect(p.wish.inspect!, u)),
    [p.wish, u],
  );
  const form = useDraftForm<Typed, Wish>(
    `mission-${p.job_id}-${p.aircraft_id}-${p.version}`,
    now,
    [],
    zodResolver(schema as never) as never,
  );
  return { form, schema, now };
}

/** The plan: what is wished on one side, what follows from it on the other, at once. */
export function PlanLeaf({ p }: { p: Plan }) {
  const { form, schema, now } = useWishForm(p);
  const [params, go] = useAddress();
  const save = useSavePlan(p.job_id, p.aircraft_id);
  const [id] = useState(() => p.id ?? newId());
  const typed = useSoon(form.watch());
  const read = useMemo(() => schema.safeParse(typed), [schema, typed]);
  const changed = JSON.stringify(now) !== JSON.stringify(typed);
  const tried = useTry(p.job_id, p.aircraft_id, changed && read.success ? read.data : undefined);
  const shown = changed && tried.data ? tried.data : p;
  const flight = flightShown(shown, params.get("flight"));
  const send = form.submit((wish) => save.mutateAsync({ id, version: p.version, wish }));
  const fixed = p.flights.some((f) => f.flown);
  return (
    <form onSubmit={send} noValidate>
      {form.root && <Problem error={new Error(form.root)} />}
      <div className="two plan-leaf" style={columns("minmax(0, 2fr) minmax(0, 3fr)")}>
        {p.kind === "survey" ? (
          <SurveyForm form={form as never} p={shown} fixed={fixed} />
        ) : (
          <InspectForm form={form as never} p={shown} fixed={fixed} />
        )}
        <div className="vstack gap-3 order-first order-lg-0" aria-busy={tried.isFetching}>
          {changed && tried.error && <Problem error={tried.error} />}
          <MissionMap
            p={shown}
            flight={flight?.number}
            onFlight={(n) => go({ flight: String(n) })}
            label={`${shown.feature_name}, flights: ${shown.flights.length}`}
          />
          <Figures
            p={shown}
            onTake={(name, value) => form.setValue(name as never, value as never, { shouldDirty: true })}
          />
        </div>
        <div className="vstack gap-3">
          {flight && <MissionSide flight={flight} />}
          <Flights p={shown} shown={flight?.number} onShow={(n) => go({ flight: String(n) })} />
          {shown.parts.length > 0 && <Parts p={shown} />}
          <Sun p={shown} />
        </div>
      </div>
      {p.may && (changed || p.version === 0) && (
        <KeepBar wrong={form.first} changed={changed} busy={save.isPending} onBack={() => form.reset(now)} />
      )}
      {!p.may && <Sheet>A pilot plans; what you try here is not kept.</Sheet>}
    </form>
  );
}
