import { z } from "zod";
import type { Schemas } from "../api/client";
import { keeping, typedNumber, untouched } from "../parts/typed";
import { least, stands, type Feature } from "./kinds";
import { readHeadings, readPlaces } from "./model";

export type Ground = Schemas["GroundCheck"];

/** What is looked at on the ground of a take-off place. */
export const looked: [keyof Ground, string][] = [
  ["flat", "Flat and level"],
  ["firm", "Firm"],
  ["clear", "Clear all round"],
  ["no_plastic", "No loose plastic or film"],
  ["no_dust", "No dust"],
  ["no_people", "Away from roads and people"],
];

const notLooked: Ground = {
  flat: null,
  firm: null,
  clear: null,
  no_plastic: null,
  no_dust: null,
  no_people: null,
};

/** The answer to one look; the same answer again takes it back. */
export function answered(ground: Ground | undefined, of: keyof Ground, yes: boolean): Ground {
  return { ...(ground ?? notLooked), [of]: ground?.[of] === yes ? null : yes };
}

export interface FeatureTyped {
  name: string;
  note: string;
  what: string;
  main: boolean;
  measured: string;
  height_m: string;
  sigma_m: string;
  buffer_m: string;
  elevation: string;
  free_deg: string;
  ground: Ground | undefined;
  places: string;
}

/** Places as a box of text shows them, one a line. */
export function placesText(f: Feature): string {
  return f.places.map((p) => `${+p.lat.toFixed(7)}, ${+p.lon.toFixed(7)}`).join("\n");
}

/** One thing on the map as its form shows it; the site speaks metres. */
export function featureTyped(f: Feature): FeatureTyped {
  const shown = (v: number | null | undefined) => (v == null ? "" : String(+v.toFixed(2)));
  return {
    name: f.name,
    note: f.note ?? "",
    what: f.what ?? "",
    main: f.main ?? false,
    measured: f.measured ?? "",
    height_m: shown(f.height_m),
    sigma_m: shown(f.sigma_m ?? 0),
    buffer_m: f.buffer_m ? shown(f.buffer_m) : "",
    elevation: shown(f.elevation),
    free_deg: (f.free_deg ?? []).join(" "),
    ground: f.ground,
    places: placesText(f),
  };
}

/** What is typed of a thing of this kind and shape, held against what can be, and turned into the thing. */
export function featureForm(f: Feature) {
  const places = z.string().transform((text, ctx) => {
    const read = readPlaces(text);
    const short = typeof read !== "string" && read.length < least[f.shape];
    if (typeof read !== "string" && !short) return read;
    ctx.addIssue({
      code: "custom",
      message: short ? `At least ${least[f.shape]} are needed.` : (read as string),
    });
    return z.NEVER;
  });
  const headings = z.string().transform((text, ctx) => {
    const read = readHeadings(text);
    if (read) return read;
    ctx.addIssue({ code: "custom", message: "Headings are 0 to 359, with spaces between." });
    return z.NEVER;
  });
  const boxes = z.object({
    name: z.string().trim(),
    note: z.string().trim(),
    what: z.string().trim(),
    main: z.boolean(),
    measured: z.string().transform((w) => w as Feature["measured"]),
    height_m: typedNumber(0, 1000, "m"),
    sigma_m: typedNumber(0, 200, "m"),
    buffer_m: typedNumber(0, 1000, "m"),
    elevation: typedNumber(-500, 6000, "m"),
    free_deg: headings,
    ground: z.custom<Ground | undefined>(),
    places,
  });
  const shown = featureTyped(f);
  const was = {
    height_m: f.height_m ?? null,
    sigma_m: f.sigma_m ?? 0,
    buffer_m: f.buffer_m || null,
    elevation: f.elevation ?? null,
  };
  return keeping(boxes, (typed, now) => ({ ...now, ...untouched(typed, shown, was) })).transform(
    (x): Feature => ({
      ...f,
      ...x,
      height_m: stands(f.kind) ? x.height_m : undefined,
      sigma_m: x.sigma_m ?? 0,
      buffer_m: x.buffer_m ?? 0,
      heights: undefined,
    }),
  );
}
