import { z } from "zod";
import { typedNumber, typedPrice, typedWhole } from "../parts/typed";

/** A part that is put on the shelf, as it is typed. */
export const partForm = z.object({
  type_key: z.string(),
  kind: z.string(),
  serial: z.string(),
  batch: z.string(),
  source: z.enum(["maker", "third-party"]),
  price: typedPrice,
});

const whole = (most: number) => typedWhole(0, most, `Enter a whole number from 0 to ${most}.`);

/** A line of the stock, as it is typed; what has a serial number is counted from the shelf. */
export const stockForm = z
  .object({
    name: z.string(),
    type_key: z.string(),
    kind: z.string(),
    quantity: z.string(),
    minimum: whole(10_000),
    delivery_days: whole(730),
    price: typedPrice,
    source: z.string(),
  })
  .transform(({ price, quantity, ...v }, ctx) => {
    const counted = whole(100_000).safeParse(quantity);
    if (!v.kind && !counted.success)
      ctx.addIssue({ code: "custom", path: ["quantity"], message: counted.error.issues[0]!.message });
    return {
      ...v,
      type_key: v.kind ? v.type_key : "",
      quantity: v.kind ? 0 : (counted.data ?? 0),
      price_cents: price,
    };
  });

/** What is taken from the shelf for a work order, as it is typed. */
export const takeForm = z.object({
  line_id: z.string().min(1, "Choose what was taken."),
  quantity: typedWhole(1, 100_000, "Enter a whole number, 1 or more."),
});

/** Until when something is put off, as it is typed. */
export const deferForm = z.object({
  days: typedWhole(1, 365, "Enter a whole number of days, 1 to 365."),
  reason: z.string(),
  pin: z.string(),
});

/** A reading of a step, as it is typed. */
export const stepReading = (quantity: string) =>
  typedNumber(-1e6, 1e6, "", `Enter the ${quantity}.`).transform((v) => v ?? 0);
