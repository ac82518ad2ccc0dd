import { z } from "zod";
import { typedWhole } from "../parts/typed";

/** What was practised, as it is typed. */
export const practiceForm = z.object({
  type_key: z.string(),
  phase: z.enum(["empty", "loaded"]),
  packs: typedWhole(0, 20, "Enter a whole number of packs, 0 to 20.", 0),
  landings: typedWhole(0, 100, "Enter a whole number of landings, 0 to 100.", 0),
  nose_in: z.boolean(),
  flown_on: z.string(),
  note: z.string(),
  pin: z.string(),
});
