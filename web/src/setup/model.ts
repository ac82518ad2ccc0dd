import { z } from "zod";

const units = z.object({
  length: z.enum(["m", "ft"]),
  speed: z.enum(["m/s", "kt", "mph"]),
  mass: z.enum(["kg", "lb"]),
  temperature: z.enum(["degC", "degF"]),
  volume: z.enum(["L", "gal"]),
});

/** What holds for the whole crew, as its form reads it. */
export const crewForm = z.object({
  crew_name: z.string().trim().min(1, "Enter what the crew is called.").max(120, "At most 120 characters."),
  zone: z.string().trim().min(1, "Enter the time zone, like Area/City."),
  tile_url: z
    .string()
    .trim()
    .max(300, "At most 300 characters.")
    .refine((t) => t === "" || ["{z}", "{x}", "{y}"].every((p) => t.includes(p)), {
      message: "An address of map pictures has {z}, {x} and {y} in it.",
    }),
  head_to: z.string(),
  keep_places: z.boolean(),
  units,
});
