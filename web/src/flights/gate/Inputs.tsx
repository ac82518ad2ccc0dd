import { Link } from "react-router";
import { PackChoice } from "../../rack/PackChoice";
import { usePacks } from "../../api/queries";
import { readDraft, writeDraft } from "../../parts/drafts";
import { SelectField } from "../../parts/Field";
import { Sheet } from "../../parts/Sheet";
import { useZone } from "../../parts/time";
import { useUnits } from "../../parts/units";
import type { GateProps } from "./GateView";
import { jobOf, noJob, type WindTyped } from "./model";
import { WindFields } from "./WindFields";

/** What flies: the job, the packs, the wind; in the order in which a pilot says them. */
export function Inputs({ g, kept, change, wrong }: GateProps) {
  const packs = usePacks();
  const u = useUnits();
  const z = useZone();
  const n = g.type.profile.packs.count;
  const o = g.output;
  const site = g.jobs.find((j) => j.id === kept.job)?.site;
  const windKey = `wind-${site ?? "here"}`;
  const fit = (packs.data?.packs ?? []).filter(
    (p) =>
      p.fits.includes(g.type.profile.name) &&
      (p.state === "charged" || p.fitted_to === g.aircraft.name || (kept.packs ?? []).includes(p.id)),
  );
  const chooseJob = (id: string) => {
    const job = g.jobs.find((x) => x.id === id);
    change({ job: id || null, ...(job ? { purpose: job.aim.slice(0, 120) } : {}) });
  };
  return (
    <div className="vstack gap-3">
      <div id="gate-job">
        <Sheet title="Job" aside={jobOf(kept) && <Link to={`/jobs/${kept.job}`}>Open the job</Link>}>
          <SelectField
            label="This flight belongs to"
            value={kept.job ?? ""}
            onChange={(e) => chooseJob(e.target.value)}
          >
            <option value="">choose the job</option>
            {jobOf(kept) && !g.jobs.some((x) => x.id === kept.job) && (
              <option value={kept.job!}>another job</option>
            )}
            {g.jobs.map((x) => (
              <option key={x.id} value={x.id}>
                {x.aim} ({x.site}, {z.both(x.from)})
              </option>
            ))}
            <option value={noJob}>no job</option>
          </SelectField>
          {g.jobs.length === 0 && (
            <p className="mb-0">
              No job holds this aircraft. <Link to="/jobs?new=1">Plan one</Link>; practice and check flights
              are jobs at a base or practice site.
            </p>
          )}
        </Sheet>
      </div>
      <div id="gate-packs">
        <Sheet title={n === 1 ? "Pack" : `${n} packs`}>
          <PackChoice
            packs={fit}
            rack={packs.data?.packs ?? []}
            type={g.type.profile.name}
            count={n}
            chosen={kept.packs ?? []}
            onChange={(p) => change({ packs: p })}
          />
        </Sheet>
      </div>
      <div id="gate-wind">
        <Sheet title="Wind here, now">
          <WindFields
            value={kept.wind}
            onChange={(wind) => {
              change({ wind });
              writeDraft(windKey, wind);
            }}
            wrong={wrong}
            before={readDraft<WindTyped>(windKey)}
          />
          {o.wind && (
            <p className="mb-0">
              At {u.show("length", o.wind_m ?? g.type.profile.limits.flight_height_m)}:{" "}
              <strong className="fig">{u.show("speed", o.wind.steady_ms)}</strong>, gusts{" "}
              <strong className="fig">{u.show("speed", o.wind.gust_ms)}</strong>
              {o.wind.gust_assumed && " (assumed)"}. Limits {u.show("speed", g.type.profile.limits.wind_ms)}{" "}
              and {u.show("speed", g.type.profile.limits.gust_ms)}.{" "}
              <span className="soft">{o.wind.notes.join(" ")}</span>
            </p>
          )}
        </Sheet>
      </div>
    </div>
  );
}
