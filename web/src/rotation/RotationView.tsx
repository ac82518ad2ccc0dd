import { columns } from "../parts/columns";
import { useRotation } from "./api";
import { zodResolver } from "@hookform/resolvers/zod";
import { useQuery } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { useAddress } from "../parts/address";
import { useDraftForm } from "../parts/form";
import { counted } from "../parts/number";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useSoon } from "../parts/useSoon";
import { DayFields } from "./DayFields";
import { DayLine } from "./DayLine";
import { dayForm, fromPlan, usualDay, type Day, type Typed } from "./model";
import { Outcome } from "./Outcome";

/** The day's rotation: aircraft, packs, chargers and hands, and what holds the work up. */
export function RotationView() {
  const [params] = useAddress();
  const [job, aircraft] = [params.get("job") ?? "", params.get("aircraft") ?? ""];
  const form = useDraftForm<Typed, Day>("rotation", usualDay, [], zodResolver(dayForm));
  const read = dayForm.safeParse(useSoon(form.watch(), 150));
  const plan = useQuery({
    queryKey: keys.spray(job, aircraft),
    queryFn: () => ask(api.GET("/jobs/{id}/spray/{aircraft}", { params: { path: { id: job, aircraft } } })),
    enabled: job !== "" && aircraft !== "",
  });
  const day = read.success ? (plan.data ? fromPlan(plan.data, read.data) : read.data) : undefined;
  const q = useRotation(day);
  return (
    <>
      <ViewHead title="The day's rotation">
        <Button variant="outline-primary" onClick={() => print()}>
          Print
        </Button>
      </ViewHead>
      {plan.data && (
        <p className="soft">
          {counted(plan.data.sorties.length, "flight")} left of {plan.data.aim}, with {plan.data.aircraft}.
        </p>
      )}
      {q.error && <Problem error={q.error} />}
      <div className="two" style={columns("minmax(0, 2fr) minmax(0, 3fr)")}>
        <DayFields form={form} planned={plan.data !== undefined} />
        <div className="vstack gap-3 order-first order-lg-0" aria-busy={q.isFetching}>
          {q.data && <Outcome r={q.data} />}
          {q.data && (
            <Sheet title="As it goes">
              <DayLine run={q.data.run} />
              <p className="soft mb-0">
                Flights are dark, charging is barred below, waits are hatched. Every flight as planned; the
                spread is over {q.data.spread?.runs ?? 0} days with varied wind and turnaround.
              </p>
            </Sheet>
          )}
        </div>
      </div>
    </>
  );
}
