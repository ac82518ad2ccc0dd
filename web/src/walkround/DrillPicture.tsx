import type { ReactNode } from "react";
import { thin, Propeller, Arm, Pack, Plug, Motor, Sensor, Surface } from "./damage";

const pictures: Record<string, ReactNode> = {
  "propeller-whole": <Propeller />,
  "propeller-nick": <Propeller edge="M60 70 Q140 43 196 54 L200 60 L206 57 Q222 61 230 66" />,
  "propeller-crack": (
    <Propeller>
      <path d="M70 70 L76 78 L73 84 L80 93" {...thin} />
    </Propeller>
  ),
  "propeller-bend": <Propeller edge="M60 70 Q140 48 180 40 L230 22" />,
  "arm-whole": <Arm />,
  "arm-crack": (
    <Arm>
      <path d="M108 66 L114 76 L110 83 L117 94" {...thin} />
    </Arm>
  ),
  "arm-open": <Arm gap={9} />,
  "pack-flat": <Pack face="H210" />,
  "pack-swollen": <Pack face="Q130 28 210 50" />,
  "plug-clean": <Plug at={112} />,
  "plug-half": <Plug at={128} />,
  "motor-whole": <Motor />,
  "motor-tilt": <Motor tilt={7} />,
  "motor-lead": (
    <Motor>
      <path d="M207 106 l5 -6 l4 8 l5 -7 l4 7" {...thin} />
      <path d="M204 99 H228 M204 113 H228" {...thin} strokeDasharray="2 3" />
    </Motor>
  ),
  "sensor-clean": <Sensor />,
  "sensor-dirty": (
    <Sensor>
      <path
        d="M112 58 q8 -8 12 2 q-4 12 -12 -2 Z M140 76 q10 -6 10 6 q-10 6 -10 -6 Z"
        {...thin}
        fill="currentColor"
      />
      <path
        d="M108 84 q6 -6 10 2 q-4 8 -10 -2 Z M132 50 q4 -4 7 1 q-3 5 -7 -1 Z"
        {...thin}
        fill="currentColor"
      />
    </Sensor>
  ),
  "surface-whole": <Surface />,
  "surface-hinge": (
    <Surface drop={10}>
      <path d="M172 66 l6 5 l-3 4 l8 5 M180 62 l5 6" {...thin} />
    </Surface>
  ),
};

/** The drawing of a drill: a part in order, or with damage. What it shows stands in no word of it. */
export function DrillPicture({ drawing }: { drawing: string }) {
  return (
    <svg
      className="drill w-100 border"
      style={{ maxWidth: 420 }}
      viewBox="0 0 260 140"
      role="img"
      aria-label="A part as it lies in the hand"
    >
      {pictures[drawing]}
    </svg>
  );
}

export const drawings = Object.keys(pictures);
