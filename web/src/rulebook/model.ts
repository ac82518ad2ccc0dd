import { z } from "zod";
import { keeping, shownQuantity, typedQuantity, untouched } from "../parts/typed";
import type { Units } from "../parts/units";

/** Under which rules a crew flies and how far it sees, as it is typed; what nobody touched stays. */
export function rulesForm(kept: { chosen: string; sight_m: number }, u: Units) {
  const shown = { pack: kept.chosen, sight_m: shownQuantity(u, "length", kept.sight_m, 0) };
  const schema = z.object({
    pack: z.string(),
    sight_m: typedQuantity(u, "length", 50, 5000, "Enter how far.").transform((v) => v ?? 0),
  });
  return {
    shown,
    schema: keeping<typeof shown, z.output<typeof schema>>(schema, (typed, now) => ({
      ...now,
      ...untouched(typed, shown, { sight_m: kept.sight_m }),
    })),
  };
}
