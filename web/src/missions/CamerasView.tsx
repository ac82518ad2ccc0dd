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
import { typedNumber } from "../parts/typed";
import { useCameras, useSaveCamera } from "./api";

type Camera = Schemas["CameraKind"];

const figures = [
  ["sensor_w_mm", "Sensor, wide", "mm", 1, 100],
  ["sensor_h_mm", "Sensor, high", "mm", 1, 100],
  ["focal_mm", "Focal length", "mm", 1, 1000],
  ["pixels_w", "Picture, wide", "pixels", 100, 50000],
  ["pixels_h", "Picture, high", "pixels", 100, 50000],
  ["least_s", "Least between two pictures", "s", 0, 60],
  ["picture_mb", "Size of a picture", "MB", 0.01, 1000],
  ["base_iso", "Base sensitivity", "ISO", 20, 102400],
] as const;

type Name = (typeof figures)[number][0];
type Typed = Record<Name, string> & { name: string; active: boolean };

const schema = z.object({
  name: z.string().trim().min(1, "Name the camera.").max(60, "At most 60 characters."),
  active: z.boolean(),
  ...(Object.fromEntries(
    figures.map(([k, , unit, lo, hi]) => [k, typedNumber(lo, hi, unit, "Enter a number.")]),
  ) as Record<Name, ReturnType<typeof typedNumber>>),
});

/** The cameras that plans choose from. */
export function CamerasView() {
  return (
    <KindsView
      title="Cameras"
      one="camera"
      heading="On the list"
      intro="Enter them as the maker's table gives them: height, lines and pictures of a plan follow from these figures. Those that came with the program are made up: put your own in their place."
      query={useCameras()}
      kinds={(d) => d.cameras}
      may={useMay()("pilot", "chief")}
      columns={[
        { head: "Sensor", cell: (c) => `${c.sensor_w_mm} × ${c.sensor_h_mm} mm` },
        { head: "Focal length", cell: (c) => `${c.focal_mm} mm` },
        { head: "Picture", cell: (c) => `${c.pixels_w} × ${c.pixels_h}, ${c.picture_mb} MB` },
        { head: "Fastest", cell: (c) => `one each ${c.least_s} s` },
      ]}
      dialog={(camera, close) => <CameraDialog camera={camera} onClose={close} />}
    />
  );
}

function CameraDialog({ camera, onClose }: { camera?: Camera; onClose: () => void }) {
  const [fresh] = useState(newId);
  const save = useSaveCamera();
  const now = { name: camera?.name ?? "", active: camera?.active ?? true } as Typed;
  for (const [k] of figures) now[k] = camera ? String(camera[k]) : "";
  const f = useDraftForm<Typed, z.output<typeof schema>>(
    `camera-${camera?.id ?? "new"}`,
    now,
    [],
    zodResolver(schema) as never,
  );
  const send = f.submit((v) => {
    const whole = { pixels_w: Math.round(v.pixels_w ?? 0), pixels_h: Math.round(v.pixels_h ?? 0) };
    const head = { id: camera?.id ?? fresh, key: camera?.key ?? fresh, version: camera?.version ?? 0 };
    return save
      .mutateAsync({ ...v, ...whole, base_iso: Math.round(v.base_iso ?? 0), ...head } as Camera)
      .then(onClose);
  });
  return (
    <Dialog title={camera ? `Change ${camera.name}` : "Add a camera"} open onClose={onClose}>
      <form onSubmit={send} noValidate>
        {f.root && <Problem error={new Error(f.root)} />}
        <TextField label="Name" {...f.register("name")} wrong={f.wrong("name")} />
        <div className="two">
          {figures.map(([k, label, unit]) => (
            <NumberField key={k} label={label} unit={unit} {...f.register(k)} wrong={f.wrong(k)} />
          ))}
        </div>
        <CheckField label="In use: plans may choose it" {...f.register("active")} />
        <Button type="submit" disabled={save.isPending}>
          {save.isPending ? "Saving…" : "Save"}
        </Button>
      </form>
    </Dialog>
  );
}
