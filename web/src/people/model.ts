import { z } from "zod";
import type { Schemas } from "../api/client";

export const roles: [Schemas["Role"], string][] = [
  ["pilot", "Pilot: runs checks, releases, flies, logs"],
  ["crew", "Crew: runs checks together with a pilot"],
  ["technician", "Technician: parts, packs, defects, return to service"],
  ["chief", "Chief: all of it, people and profiles"],
  ["reader", "Reader: looks and exports"],
];

const password = z.string().min(10, "A password has at least 10 characters.");
const pin = z.string().regex(/^[0-9]{4,12}$/, "A PIN has 4 to 12 digits and nothing else.");
const now = z.string().min(1, "Enter the password you have now.");

/** What is chosen blind is typed twice: nobody can look it up later. */
const twice =
  (one: string, again: string, what: string) => (v: Record<string, string>, ctx: z.RefinementCtx) => {
    if (v[one] !== v[again])
      ctx.addIssue({ code: "custom", path: [again], message: `This differs from the ${what} above.` });
  };
const samePassword = twice("new_password", "again", "password");
const samePin = twice("pin", "pin_again", "PIN");

/** What a person with a one-time password chooses; after a reset the PIN is the old one, and shows who it is. */
export function secretsForm(once: Schemas["Person"]["once"]) {
  return z
    .object({ new_password: password, again: z.string(), pin, pin_again: z.string() })
    .superRefine((v, ctx) => {
      samePassword(v, ctx);
      if (once === "new") samePin(v, ctx);
    });
}

/** One's own PIN, changed with the password. */
export const newPinForm = z.object({ password: now, pin, pin_again: z.string() }).superRefine(samePin);

/** One's own password, changed with the one there is. */
export const newPasswordForm = z
  .object({ password: now, new_password: password, again: z.string() })
  .superRefine(samePassword);

/** How the sticks of a controller can be set. */
export const stickModes = ["1", "2", "3", "4"];

/** The form of a person, with the roles as boxes. */
export function personForm(adding: boolean) {
  return z
    .object({
      name: z.string().trim().min(1, "Enter the person's name."),
      login: z.string().trim(),
      roles: z.record(z.string(), z.boolean()),
      certificate: z.string(),
      trained_on: z.string(),
      stick_mode: z.string().refine((m) => m === "" || stickModes.includes(m), "Stick modes are 1 to 4."),
      active: z.boolean(),
    })
    .superRefine((v, ctx) => {
      if (!Object.values(v.roles).some(Boolean))
        ctx.addIssue({ code: "custom", path: ["roles"], message: "Choose at least one role." });
      if (adding && v.login.length < 2)
        ctx.addIssue({ code: "custom", path: ["login"], message: "A sign-in name has at least 2 letters." });
    });
}

/** The boxes of the roles somebody holds. */
export function boxes(held: readonly Schemas["Role"][]): Record<string, boolean> {
  return Object.fromEntries(roles.map(([r]) => [r, held.includes(r)]));
}

/** The roles whose boxes are ticked. */
export function ticked(of: Record<string, boolean>): Schemas["Role"][] {
  return roles.map(([r]) => r).filter((r) => of[r]);
}
