import { z } from "zod";
import type { Schemas } from "../api/client";
import { typedNumber } from "../parts/typed";
import type { Plan } from "./api";

type Card = Schemas["CameraCard"];

/** White balance by light, K. */
export const kelvins = { sun: 5600, cloud: 7000, night: 3200 } as const;

const num = (lo: number, hi: number, unit: string) =>
  typedNumber(lo, hi, unit, "Enter a number.").transform((v) => v ?? 0);
const maybe = (lo: number, hi: number, unit: string) => typedNumber(lo, hi, unit);
const asked = z.enum(["", "yes", "no"]).transform((v) => (v === "" ? null : v === "yes"));

/** What is typed on a camera card. */
export const cardForm = (camera: string) =>
  z
    .object({
      light: z.enum(["sun", "cloud", "night"]),
      video: z.boolean(),
      fps: z.string(),
      shutter: num(1, 20000, "1/s"),
      metered: maybe(1, 20000, "1/s").transform((v) => v ?? 0),
      filter_stop: num(0, 12, "stops"),
      gimbal_off: asked,
      iso: num(20, 102400, ""),
      kelvin: num(1500, 15000, "K"),
      profile: z.string().max(60, "At most 60 characters."),
      formatted: asked,
      free_gb: maybe(0, 10000, "GB"),
      cap_off: asked,
      before: maybe(0, 10_000_000, ""),
      after: maybe(0, 10_000_000, ""),
    })
    .transform((v, ctx): Card => {
      const fps = v.video ? typedNumber(1, 240, "a second", "Enter a number.").safeParse(v.fps) : undefined;
      if (fps && !fps.success)
        ctx.addIssue({ code: "custom", path: ["fps"], message: "Enter 1 to 240 pictures a second." });
      return { ...v, iso: Math.round(v.iso), fps: fps?.success ? (fps.data ?? 0) : 0, camera, base_iso: 0 };
    });

export type TypedCard = z.input<ReturnType<typeof cardForm>>;

const text = (v: number | null | undefined) => (v == null || v === 0 ? "" : String(v));

/** A card as it stands in the boxes: what is looked at each time is asked each time. */
export function typedCard(p: Plan): TypedCard {
  const last = p.card?.card;
  const camera = p.cameras.find((c) => c.key === cameraOf(p));
  return {
    light: last?.light ?? "sun",
    video: last?.video ?? false,
    fps: text(last?.fps) || "25",
    shutter: text(last?.shutter) || String(p.wish.survey?.shutter ?? 500),
    metered: "",
    filter_stop: String(last?.filter_stop ?? 0),
    gimbal_off: "",
    iso: text(last?.iso) || String(camera?.base_iso ?? 100),
    kelvin: text(last?.kelvin) || "5600",
    profile: last?.profile ?? "",
    formatted: "",
    free_gb: "",
    cap_off: "",
    before: "",
    after: "",
  };
}

export const cameraOf = (p: Plan) => p.wish.survey?.camera ?? p.wish.inspect?.camera ?? "";
