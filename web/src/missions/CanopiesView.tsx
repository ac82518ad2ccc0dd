import { keeping, shownQuantity, untouched } from "../parts/typed";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { z } from "zod";
import { newId, type Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { Dialog } from "../parts/Dialog";
import { CheckField, NumberField, TextField } from "../parts/Field";
import { useDraftForm } from "../parts/form";
import { KindsView } from "../parts/KindsView";
import { Problem } from "../parts/states";
import { useUnits, type Units } from "../parts/units";
import { useCanopies, useSaveCanopy } from "./api";
import { canopyHeight } from "./wish";

type Canopy = Schemas["CanopyKind"];
interface Typed {
  name: string;
  height_m: string;
  active: boolean;
}

const typedCanopy = (c: Canopy | undefined, u: Units): Typed => ({
  name: c?.name ?? "",
  height_m: shownQuantity(u, "length", c?.height_m, 1),
  active: c?.active ?? true,
});

/** A row as it is typed; a height that nobody touched stays what it was. */
function form(u: Units, was?: Canopy) {
  const boxes = z.object({
    name: z.string().trim().min(1, "Say what grows there.").max(60, "At most 60 characters."),
    height_m: canopyHeight(u),
    active: z.boolean(),
  });
  const kept = was ? { height_m: was.height_m } : {};
  return keeping(boxes, (typed, now) => ({ ...now, ...untouched(typed, typedCanopy(was, u), kept) }));
}

/** How high surveys fly over what grows: the crew's own table. */
export function CanopiesView() {
  const u = useUnits();
  return (
    <KindsView
      title="Survey heights"
      one="canopy"
      heading="By what grows there"
      intro="The higher the plants, the higher a survey flies, so that neighbouring pictures show the same tops. Put in what your pictures have shown to be enough; a plan names its row and follows it."
      query={useCanopies()}
      kinds={(d) => d.canopies}
      may={useMay()("pilot", "chief")}
      columns={[{ head: "Height over the ground", cell: (c) => u.show("length", c.height_m) }]}
      dialog={(canopy, close) => <CanopyDialog canopy={canopy} onClose={close} />}
    />
  );
}

function CanopyDialog({ canopy, onClose }: { canopy?: Canopy; onClose: () => void }) {
  const u = useUnits();
  const [fresh] = useState(newId);
  const save = useSaveCanopy();
  const f = useDraftForm<Typed, z.output<ReturnType<typeof form>>>(
    `canopy-${canopy?.id ?? "new"}`,
    typedCanopy(canopy, u),
    [],
    zodResolver(form(u, canopy)) as never,
  );
  const send = f.submit((v) => {
    const head = { id: canopy?.id ?? fresh, key: canopy?.key ?? fresh, version: canopy?.version ?? 0 };
    return save.mutateAsync({ ...v, ...head }).then(onClose);
  });
  return (
    <Dialog title={canopy ? `Change ${canopy.name}` : "Add a canopy"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="What grows there" {...f.register("name")} wrong={f.wrong("name")} />
        <NumberField
          label="Height over the ground"
          unit={u.label("length")}
          {...f.register("height_m")}
          wrong={f.wrong("height_m")}
        />
        <CheckField label="In use: plans may choose it" {...f.register("active")} />
        <Button type="submit" disabled={save.isPending}>
          {save.isPending ? "Saving…" : "Save"}
        </Button>
      </form>
    </Dialog>
  );
}
