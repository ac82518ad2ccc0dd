import { useOpenWorkOrder } from "./api";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useNavigate, useSearchParams } from "react-router";
import { api, ask, newId, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { AreaField, CheckField, SelectField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem, QueryView } from "../parts/states";

/** What the new order is for: a task that is due, or a defect. */
export function For({ aircraft }: { aircraft: string }) {
  const q = useQuery({
    queryKey: keys.aircraft(aircraft),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id: aircraft } } })),
  });
  return (
    <QueryView query={q} what="the aircraft">
      {(d) => <Choice d={d} />}
    </QueryView>
  );
}

function Choice({ d }: { d: Schemas["AircraftDetail"] }) {
  const openWorkOrder = useOpenWorkOrder();
  const go = useNavigate();
  const [params] = useSearchParams();
  const key = d.type.profile.key;
  const programme = useQuery({
    queryKey: keys.programme(key),
    queryFn: () => ask(api.GET("/types/{key}/programme", { params: { path: { key } } })),
    retry: false,
  });
  const [id] = useState(newId);
  const f = useDraftForm(`order-${d.aircraft.id}-${params.toString()}`, {
    from: params.get("defect") ? "defect" : params.get("task") ? "task" : "hand",
    task_id: params.get("task") ?? "",
    defect_id: params.get("defect") ?? "",
    station: "frame",
    title: "",
    steps: "",
    second_person: false,
    no_load: false,
    load: false,
  });
  const from = f.watch("from");
  const send = f.submit(async (v) => {
    const o = await openWorkOrder.mutateAsync({
      id,
      aircraft_id: d.aircraft.id,
      task_id: from === "task" ? v.task_id : "",
      defect_id: from === "defect" && v.defect_id ? v.defect_id : null,
      station: from === "hand" ? v.station : "",
      title: from === "hand" ? v.title : "",
      steps: from === "hand" ? v.steps.split("\n").filter((x) => x.trim()) : [],
      second_person: from === "hand" && v.second_person,
      acceptance:
        from === "hand"
          ? [v.no_load && ("no-load" as const), v.load && ("load" as const)].filter((x) => x !== false)
          : [],
    });
    void go(`/workshop/orders/${o.id}`, { replace: true });
  });
  const open = d.defects.filter((x) => !x.order_id);
  return (
    <Sheet title={d.aircraft.name}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <SelectField label="What for" {...f.register("from")}>
          <option value="task">A task of the maintenance programme</option>
          <option value="defect">An open defect</option>
          <option value="hand">Something else</option>
        </SelectField>
        {from === "task" && (
          <SelectField label="Task" {...f.register("task_id")} wrong={f.wrong("task_id")}>
            <option value="">Choose</option>
            {programme.data?.tasks.map((t) => (
              <option key={t.id} value={t.id}>
                {t.title}
              </option>
            ))}
          </SelectField>
        )}
        {from === "defect" &&
          (open.length === 0 ? (
            <p>No open defect waits for a work order.</p>
          ) : (
            <SelectField label="Defect" {...f.register("defect_id")} wrong={f.wrong("defect_id")}>
              <option value="">Choose</option>
              {open.map((x) => (
                <option key={x.id} value={x.id}>
                  {x.title}
                </option>
              ))}
            </SelectField>
          ))}
        {from === "hand" && (
          <>
            <TextField label="The work, in a few words" {...f.register("title")} wrong={f.wrong("title")} />
            <SelectField label="Where" {...f.register("station")} wrong={f.wrong("station")}>
              {d.type.stations.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}
                </option>
              ))}
            </SelectField>
            <AreaField label="Steps, one in each line" {...f.register("steps")} wrong={f.wrong("steps")} />
            <CheckField label="A second person looks at it" {...f.register("second_person")} />
            <CheckField label="Acceptance flight without load after it" {...f.register("no_load")} />
            <CheckField label="Acceptance flight with load after that" {...f.register("load")} />
          </>
        )}
        <Button type="submit" disabled={f.formState.isSubmitting}>
          Open it
        </Button>
      </form>
    </Sheet>
  );
}
