import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect, useRef } from "react";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { clearDraft } from "../parts/drafts";
import { AreaField, CheckField, TextField } from "../parts/Field";
import { VerdictMark } from "../parts/Flag";
import { useDraftForm } from "../parts/form";
import { Sheet } from "../parts/Sheet";
import { Problem } from "../parts/states";
import { useZone } from "../parts/time";
import { useFeature } from "./api";
import { featureForm, featureTyped, placesText } from "./featureForm";
import { HeightFields } from "./HeightFields";
import { type Feature, kindName, stands } from "./kinds";
import { TakeOffFields } from "./TakeOffFields";

export interface FeatureFormProps {
  site: string;
  f: Feature;
  version: number;
  findings: Schemas["SiteJudgement"][];
  onDone: () => void;
  /** Metres kept clear around a kind of feature that has no buffer of its own. */
  usualBuffer: Record<string, number>;
  onRemoved: (id: string) => void;
}

/** What is known about one thing on the map. */
export function FeatureForm(of: FeatureFormProps) {
  const { f, version } = of;
  const z = useZone();
  const { keep, remove } = useFeature(of.site, f.id);
  const key = `feature-${f.id}-${version}`;
  const form = useDraftForm(key, featureTyped(f), [], zodResolver(featureForm(f)));
  const { setValue } = form;
  const drawn = placesText(f);
  const last = useRef(drawn);
  useEffect(() => {
    if (last.current !== drawn) setValue("places", drawn); // dragged on the map; at first what was typed stands
    last.current = drawn;
  }, [drawn, setValue]);
  const send = form.submit(async (feature) => {
    await keep.mutateAsync({ feature, version });
    of.onDone();
  });
  const close = () => {
    clearDraft(key);
    of.onDone();
  };
  const v = form.watch();
  const error = form.root ? new Error(form.root) : remove.error;
  return (
    <Sheet title={version === 0 ? `New: ${kindName(f.kind)}` : f.name || kindName(f.kind)}>
      {of.findings.map((j, i) => (
        <p key={i} className="mb-1">
          <VerdictMark verdict={j.verdict} /> {j.sentence}
        </p>
      ))}
      <form noValidate onSubmit={send}>
        <TextField label="Name" maxLength={120} {...form.register("name")} wrong={form.wrong("name")} />
        {f.kind === "obstacle" && (
          <CheckField
            label="A structure: building, mast, tower (not a tree)"
            checked={v.what === "structure"}
            onChange={(e) => setValue("what", e.target.checked ? "structure" : "")}
          />
        )}
        {stands(f.kind) && (
          <HeightFields
            form={form}
            wrong={form.wrong}
            kind={f.kind}
            usualBuffer={of.usualBuffer[f.kind] ?? 0}
          />
        )}
        {(f.kind === "sensitive" || f.kind === "interference") && (
          <TextField
            label={f.kind === "sensitive" ? "What: bees, houses, water, organic field, people" : "What"}
            maxLength={120}
            {...form.register("what")}
            wrong={form.wrong("what")}
          />
        )}
        {f.kind === "take-off" && <TakeOffFields form={form} wrong={form.wrong} />}
        <AreaField
          label={f.shape === "point" ? "Place" : "Places"}
          hint="Latitude, longitude; one place a line"
          rows={Math.min(6, v.places.split("\n").length + 1)}
          {...form.register("places")}
          wrong={form.wrong("places")}
        />
        <AreaField label="Note" rows={2} {...form.register("note")} wrong={form.wrong("note")} />
        {(f.heights ?? []).length > 0 && (
          <p className="soft">Before: {(f.heights ?? []).map((h) => earlier(h, z.date(h.at))).join("; ")}</p>
        )}
        {error && <Problem error={error} />}
        <div className="d-flex gap-2 flex-wrap">
          <Button type="submit" disabled={keep.isPending}>
            Save
          </Button>
          <Button variant="outline-primary" onClick={close}>
            Close
          </Button>
          {version > 0 && (
            <Button
              variant="outline-danger"
              disabled={remove.isPending}
              onClick={() => remove.mutate(undefined, { onSuccess: () => of.onRemoved(f.id) })}
            >
              Take it off the map
            </Button>
          )}
        </div>
      </form>
    </Sheet>
  );
}

/** A height that was on file before: what it was, how it was found, by whom. */
function earlier(h: NonNullable<Feature["heights"]>[number], day: string): string {
  const found = h.measured ? ` by ${h.measured}` : "";
  const height = h.m == null ? "not known" : `${h.m.toFixed(1)} ± ${h.sigma_m.toFixed(1)} m`;
  return `${height}${found} (${h.by}, ${day})`;
}
