import { z } from "zod";
import type { Schemas } from "../api/client";

export const roles: [Schemas["Role"], string][] = [
  ["pilot", "Pilot: runs checks, releases, flies, logs"],
  ["crew", "Crew: runs checks together with a pilot"],
  ["technician", "Technician: parts, packs, defects, return to service"],
  ["chief", "Chief: all of it, people and profiles"],
  ["reader", "Reader: looks and exports"],
];

/** What a person with a one-time password chooses: typed twice, for nobody can look it up later. */
export function secretsForm(once: Schemas["Person"]["once"]) {
  return z
    .object({
      new_password: z.string().min(10, "A password has at least 10 characters."),
      again: z.string(),
      pin: z.string().regex(/^[0-9]{4,12}$/, "A PIN has 4 to 12 digits and nothing else."),
      pin_again: z.string(),
    })
    .superRefine((v, ctx) => {
      if (v.again !== v.new_password)
        ctx.addIssue({ code: "custom", path: ["again"], message: "This differs from the password above." });
      if (once === "new" && v.pin_again !== v.pin)
        ctx.addIssue({ code: "custom", path: ["pin_again"], message: "This differs from the PIN above." });
    });
}

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
