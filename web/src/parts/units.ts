import { useMemo } from "react";
import { useSession } from "./session";
import type { Schemas } from "../api/client";

export type Quantity = "length" | "speed" | "mass" | "temperature" | "volume";

export interface Units {
  /** A value in the base unit, in the crew's unit with its label. */
  show: (q: Quantity, base: number) => string;
  value: (q: Quantity, base: number) => number;
  toBase: (q: Quantity, shown: number) => number;
  label: (q: Quantity) => string;
}

function unitFor(s: Schemas["Session"], q: Quantity): Schemas["Unit"] {
  const code = s.crew.units[q];
  return (
    s.units.find((u) => u.code === code) ?? {
      code,
      quantity: q,
      label: code,
      factor: 1,
      offset: 0,
      decimals: 1,
    }
  );
}

/** The crew's units; factors come from the server's own table. */
export function useUnits(): Units {
  const s = useSession();
  return useMemo(() => {
    const value = (q: Quantity, base: number) => {
      const u = unitFor(s, q);
      return (base - u.offset) / u.factor;
    };
    return {
      value,
      show: (q, base) => {
        const v = value(q, base);
        // Nobody means the tenth of a metre where hundreds are said.
        const decimals = Math.abs(v) >= 100 ? 0 : unitFor(s, q).decimals;
        return `${q === "length" ? +v.toFixed(decimals) : v.toFixed(decimals)} ${unitFor(s, q).label}`;
      },
      toBase: (q, shown) => {
        const u = unitFor(s, q);
        return shown * u.factor + u.offset;
      },
      label: (q) => unitFor(s, q).label,
    };
  }, [s]);
}
