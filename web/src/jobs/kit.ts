import { z } from "zod";
import { typedWhole } from "../parts/typed";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";
import { usePress } from "../outbox/hooks";
import { pressKind } from "../outbox/kinds";
import type { Press } from "../outbox/model";

type Item = Schemas["KitItem"];

/** A line of the kit, ticked or not, as it is pressed. */
export interface KitPress {
  job: string;
  item: string;
  label: string;
  edit: Schemas["KitEdit"];
}

/** The outbox's name for the kit of a job. */
export const kitThing = (job: string) => `kit/${job}`;

/** The kit with the ticks that wait to be sent. */
export function withTicks(kit: Item[], waiting: Press[]): Item[] {
  return waiting.reduce((now, p) => {
    const { item, edit } = (p as Press<KitPress>).body;
    return now.map((k) =>
      k.id === item
        ? {
            ...k,
            packed: edit.packed,
            packed_by: k.packed ? k.packed_by : p.personName,
            checked: edit.checked,
            checked_by: k.checked ? k.checked_by : p.personName,
          }
        : k,
    );
  }, kit);
}

/** Ticks a line as packed or checked. */
export function useKitTick(job: string) {
  const press = usePress();
  return (k: Item, part: Pick<Partial<Schemas["KitEdit"]>, "packed" | "checked">) =>
    press<KitPress>("kit.tick", kitThing(job), {
      job,
      item: k.id,
      label: k.label,
      edit: {
        packed: k.packed,
        checked: k.checked,
        label: k.own ? k.label : "",
        quantity: k.own ? k.quantity : 0,
        ...part,
      },
    });
}

pressKind<KitPress>("kit.tick", {
  said: (b) => `${b.label}: ${b.edit.checked ? "checked" : b.edit.packed ? "packed" : "not packed"}`,
  send: async (p, { header, signal }, qc) => {
    const { job, item, edit } = p.body;
    await ask(
      api.PUT("/jobs/{id}/kit/{item}", { params: { header, path: { id: job, item } }, signal, body: edit }),
    );
    await qc.invalidateQueries({ queryKey: keys.job(job) }); // shown as pressed until this has come
  },
});

/** Something else to take along, as it is typed. */
export const kitForm = z.object({
  label: z.string().trim().min(1, "Say what it is.").max(120, "At most 120 characters."),
  quantity: typedWhole(0, 10_000, "Enter a whole number, 0 to 10000.", 0),
});
