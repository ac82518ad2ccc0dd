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
