import { z } from "zod";
import type { Schemas } from "../api/client";
import { instant } from "../parts/time";
import { keeping, shownQuantity, typedNumber, typedQuantity, untouched } from "../parts/typed";
import type { Units } from "../parts/units";

type Job = Schemas["Job"];

/** The crew's zone: its name, and a moment as its clock shows it. */
type Zone = { zone: string; local: (iso: string) => string };

/** How one aircraft of a job is flown, as it is typed. */
export interface ChosenCraft {
  on: boolean;
  ret: string;
  route: string;
  datum: Schemas["Datum"];
  mass: string;
  speed: string;
  follows: boolean;
  lost: Schemas["LostLink"];
}

export const blankCraft: ChosenCraft = {
  on: false,
  ret: "",
  route: "",
  datum: "",
  mass: "",
  speed: "",
  follows: false,
  lost: "",
};

export interface JobTyped {
  work: Job["work"];
  site_id: string;
  aim: string;
  product: string;
  from: string;
  to: string;
  sorties: string;
  meeting: string;
  channel: string;
  take_off: string;
  landing: string;
  second: string;
  gear: string[];
  label_low: string;
  label_high: string;
  label_height: string;
  aircraft: Record<string, ChosenCraft>;
  people: Record<string, string>;
}

/** How one aircraft is flown, as its boxes show it. */
function craftTyped(c: Job["aircraft"][number], u: Units): ChosenCraft {
  return {
    on: true,
    ret: shownQuantity(u, "length", c.return_m, 1),
    route: shownQuantity(u, "length", c.route_m, 1),
    speed: shownQuantity(u, "speed", c.speed_ms, 1),
    mass: shownQuantity(u, "mass", c.mass_kg, 2),
    follows: c.home_follows,
    lost: c.lost_link,
    datum: c.datum,
  };
}

/** A job as its form shows it; a new one begins with the next hour, flown by who plans it. */
export function jobTyped(
  job: Job | undefined,
  u: Units,
  zone: Pick<Zone, "local">,
  now: number,
  me: Pick<Schemas["Person"], "id" | "roles">,
): JobTyped {
  const hour = Math.ceil(now / 3_600_000) * 3_600_000;
  const at = (ms: number) => zone.local(new Date(ms).toISOString());
  return {
    work: job?.work ?? "inspection",
    site_id: job?.site_id ?? "",
    aim: job?.aim ?? "",
    product: job?.product ?? "",
    from: job ? zone.local(job.from) : at(hour),
    to: job ? zone.local(job.to) : at(hour + 4 * 3_600_000),
    sorties: job?.sorties ? String(job.sorties) : "",
    meeting: job?.meeting ?? "",
    channel: job?.channel ?? "",
    take_off: job?.take_off_id ?? "",
    landing: job?.landing_id ?? "",
    second: job?.second_id ?? "",
    gear: (job?.gear ?? []).map((g) => g.id),
    label_low: shownQuantity(u, "speed", job?.label.low_ms, 1),
    label_high: shownQuantity(u, "speed", job?.label.high_ms, 1),
    label_height: shownQuantity(u, "length", job?.label.height_m, 1),
    aircraft: Object.fromEntries((job?.aircraft ?? []).map((c) => [c.aircraft_id, craftTyped(c, u)])),
    people: Object.fromEntries(
      job
        ? job.people.map((p) => [p.person_id, p.post])
        : me.roles.includes("pilot")
          ? [[me.id, "rpic"]]
          : [],
    ),
  };
}

/** What is typed of one aircraft, turned into how it is flown. */
function craft(u: Units) {
  const over = typedQuantity(u, "length", 0, 500);
  const overSea = typedQuantity(u, "length", -500, 7000);
  return z
    .object({
      ret: over,
      route: z.string(),
      datum: z.custom<Schemas["Datum"]>(),
      mass: typedQuantity(u, "mass", 0, 1000),
      speed: typedQuantity(u, "speed", 0, 100),
      follows: z.boolean(),
      lost: z.custom<Schemas["LostLink"]>(),
    })
    .transform((c, ctx) => {
      const route = (c.datum === "sea" ? overSea : over).safeParse(c.route);
      if (route.success) return { ...c, route: route.data };
      ctx.addIssue({ code: "custom", path: ["route"], message: route.error.issues[0]!.message });
      return z.NEVER;
    });
}

/** The aircraft that are chosen. What was typed of one that does not fly is no fault. */
function crafts(u: Units, before: Job["aircraft"]) {
  const one = craft(u);
  const kept = (c: ChosenCraft, b?: Job["aircraft"][number]) =>
    b &&
    untouched(c, craftTyped(b, u), { ret: b.return_m, route: b.route_m, mass: b.mass_kg, speed: b.speed_ms });
  return z.custom<JobTyped["aircraft"]>().transform((all, ctx) =>
    Object.entries(all)
      .filter(([, c]) => c?.on)
      .flatMap(([aircraft_id, c]): Schemas["JobCraft"][] => {
        const r = one.safeParse({ ...blankCraft, ...c }); // a draft from before lacks some
        if (r.success) {
          const was = before.find((b) => b.aircraft_id === aircraft_id);
          const { ret, route, datum, mass, speed, follows, lost } = { ...r.data, ...kept(c, was) };
          const heights = { return_m: ret, route_m: route, datum };
          return [
            {
              aircraft_id,
              ...heights,
              mass_kg: mass,
              speed_ms: speed,
              home_follows: follows,
              lost_link: lost,
            },
          ];
        }
        for (const i of r.error.issues)
          ctx.addIssue({ code: "custom", path: [aircraft_id, ...i.path], message: i.message });
        return [];
      }),
  );
}

/**
 * What is typed of a job, held against what can be, and turned into the job; times are of a zone. What
 * nobody touched of a job that is changed stays what it was: a briefing holds for the way it is flown.
 */
export function jobForm(u: Units, zone: Zone, job?: Job) {
  const moment = z.string().transform((text, ctx): string => {
    const at = instant(text, zone.zone);
    if (at) return at;
    ctx.addIssue({ code: "custom", message: "Enter date and time." });
    return z.NEVER;
  });
  const boxes = z.object({
    work: z.custom<Job["work"]>(),
    site_id: z.string().min(1, "Choose the site."),
    aim: z.string(),
    product: z.string(),
    from: moment,
    to: moment,
    sorties: typedNumber(1, 500, "flights"),
    meeting: z.string(),
    channel: z.string(),
    take_off: z.string(),
    landing: z.string(),
    second: z.string(),
    gear: z.array(z.string()),
    label_low: typedQuantity(u, "speed", 0, 20),
    label_high: typedQuantity(u, "speed", 0, 30),
    label_height: typedQuantity(u, "length", 0, 20),
    aircraft: crafts(u, job?.aircraft ?? []),
    people: z.record(z.string(), z.string()),
  });
  const was = job && {
    from: job.from,
    to: job.to,
    label_low: job.label.low_ms ?? null,
    label_high: job.label.high_ms ?? null,
    label_height: job.label.height_m ?? null,
  };
  const shown = jobTyped(job, u, zone, 0, { id: "", roles: [] });
  const typed = keeping(boxes, (now, read) => ({ ...read, ...untouched(now, shown, was ?? {}) })).transform(
    (x): Omit<Schemas["JobEdit"], "version"> => ({
      work: x.work,
      site_id: x.site_id,
      aim: x.aim,
      gear_ids: x.gear,
      product: x.work === "spraying" ? x.product : "",
      from: x.from,
      to: x.to,
      sorties: x.sorties === null ? null : Math.round(x.sorties),
      meeting: x.meeting,
      channel: x.channel,
      take_off_id: x.take_off || null,
      landing_id: x.landing || null,
      second_id: x.second || null,
      label:
        x.work === "spraying" ? { low_ms: x.label_low, high_ms: x.label_high, height_m: x.label_height } : {},
      aircraft: x.aircraft,
      people: Object.entries(x.people)
        .filter(([, post]) => post)
        .map(([person_id, post]) => ({ person_id, post: post as "rpic" })),
    }),
  );
  // What the label of a product says is asked of spraying alone.
  return z
    .custom<JobTyped>()
    .transform((x) => ({
      ...x,
      gear: x.gear ?? [],
      ...(x.work === "spraying" ? {} : { label_low: "", label_high: "", label_height: "" }),
    }))
    .pipe(typed);
}
