import type { ReactNode } from "react";

const ink = { fill: "none", stroke: "currentColor", strokeWidth: 2 } as const;
const thin = { ...ink, strokeWidth: 1 } as const;

/** A blade from the hub at 20 to the tip at 230, with its leading edge above. */
function Propeller({ edge = "M60 70 Q150 40 230 66", children }: { edge?: string; children?: ReactNode }) {
  return (
    <>
      <circle cx="34" cy="80" r="14" {...ink} />
      <circle cx="34" cy="80" r="4" {...thin} />
      <path d={`${edge} Q236 76 226 84 Q150 104 60 92 Z`} {...ink} />
      <path d="M46 74 L60 70 M46 88 L60 92" {...ink} />
      {children}
    </>
  );
}

function Arm({ gap = 0, children }: { gap?: number; children?: ReactNode }) {
  return (
    <>
      <path d={`M${92 + gap} 66 H240 V94 H${92 + gap}`} {...ink} />
      <path d="M20 52 H84 V108 H20" {...ink} />
      <path d={`M84 58 H${100 + gap} V102 H84`} {...ink} />
      <path d={`M66 44 L${96 + gap} ${44 - gap} L${96 + gap} ${52 - gap} L66 52 Z`} {...ink} />
      {children}
    </>
  );
}

function Pack({ face }: { face: string }) {
  return (
    <>
      <path d={`M50 110 V50 ${face} V110 Z`} {...ink} />
      <path d="M70 50 V40 H90 V50 M170 50 V40 H190 V50" {...thin} />
      <path d="M50 124 H210" {...thin} strokeDasharray="4 4" />
    </>
  );
}

function Plug({ at }: { at: number }) {
  return (
    <>
      <path d="M20 66 H110 V94 H20" {...ink} />
      <path d={`M${at} 60 H230 V100 H${at} Z`} {...ink} />
      <path d={`M110 74 H${at} M110 86 H${at}`} {...thin} />
      <path d={`M${at + 14} 60 V100`} {...thin} />
    </>
  );
}

/** A motor from the side: bell over stator, its leads to the right. */
function Motor({ tilt = 0, children }: { tilt?: number; children?: ReactNode }) {
  return (
    <>
      <path d="M70 96 H190 V120 H70 Z" {...ink} />
      <path d="M96 80 V96 M164 80 V96 M112 80 V96 M148 80 V96" {...thin} />
      <g transform={`rotate(${tilt} 130 60)`}>
        <path d="M62 78 V50 Q62 36 78 36 H182 Q198 36 198 50 V78 Z" {...ink} />
        <path d="M124 36 V22 H136 V36" {...ink} />
        <path d="M80 44 V72 M104 44 V72 M130 44 V72 M156 44 V72 M180 44 V72" {...thin} />
      </g>
      <path d="M190 102 H246 M190 106 H246 M190 112 H246" {...thin} />
      {children}
    </>
  );
}

/** The face of a sensor: a housing with two windows. */
function Sensor({ children }: { children?: ReactNode }) {
  return (
    <>
      <path
        d="M50 30 H210 Q222 30 222 42 V98 Q222 110 210 110 H50 Q38 110 38 98 V42 Q38 30 50 30 Z"
        {...ink}
      />
      <circle cx="84" cy="70" r="26" {...ink} />
      <circle cx="84" cy="70" r="12" {...thin} />
      <circle cx="176" cy="70" r="26" {...ink} />
      <circle cx="176" cy="70" r="12" {...thin} />
      {children}
    </>
  );
}

/** A piece of wing from above, its surface hinged behind it. */
function Surface({ drop = 0, children }: { drop?: number; children?: ReactNode }) {
  return (
    <>
      <path d="M20 24 H240 V62 H20 Z" {...ink} />
      <path d={`M40 68 L220 ${68 + drop} V${104 + drop} L40 104 Z`} {...ink} />
      <path d="M62 56 V74 M130 56 V74" {...ink} />
      {drop === 0 && <path d="M198 56 V74" {...ink} />}
      {children}
    </>
  );
}

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
    <svg className="drill" viewBox="0 0 260 140" role="img" aria-label="A part as it lies in the hand">
      {pictures[drawing]}
    </svg>
  );
}

export const drawings = Object.keys(pictures);
