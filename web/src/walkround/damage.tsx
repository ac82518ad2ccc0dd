import type { ReactNode } from "react";

const ink = { fill: "none", stroke: "currentColor", strokeWidth: 2 } as const;

export const thin = { ...ink, strokeWidth: 1 } as const;

/** A blade from the hub at 20 to the tip at 230, with its leading edge above. */
export function Propeller({
  edge = "M60 70 Q150 40 230 66",
  children,
}: {
  edge?: string;
  children?: ReactNode;
}) {
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

/** An arm, whole or cracked. */
export function Arm({ gap = 0, children }: { gap?: number; children?: ReactNode }) {
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

/** A pack, flat or bulging. */
export function Pack({ face }: { face: string }) {
  return (
    <>
      <path d={`M50 110 V50 ${face} V110 Z`} {...ink} />
      <path d="M70 50 V40 H90 V50 M170 50 V40 H190 V50" {...thin} />
      <path d="M50 124 H210" {...thin} strokeDasharray="4 4" />
    </>
  );
}

/** A plug, clean or burnt. */
export function Plug({ at }: { at: number }) {
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
export function Motor({ tilt = 0, children }: { tilt?: number; children?: ReactNode }) {
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
export function Sensor({ children }: { children?: ReactNode }) {
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
export function Surface({ drop = 0, children }: { drop?: number; children?: ReactNode }) {
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
