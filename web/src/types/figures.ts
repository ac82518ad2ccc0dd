import type { Quantity } from "../parts/units";

/** A figure of a type file: where it stands, what it is called, and its unit. */
export interface Figure {
  path: string;
  label: string;
  unit: string;
  /** Shown in the crew's unit. */
  quantity?: Quantity;
  whole?: boolean;
  /** May stay empty: then the usual value holds, or there is none. */
  optional?: boolean;
  /** Layouts that have it; none named: all. */
  of?: Kind[];
  hint?: string;
}

export type Kind = "multirotor" | "fixed-wing" | "vertical-take-off-wing";

export const kinds: Record<Kind, string> = {
  multirotor: "Multirotor",
  "fixed-wing": "Fixed wing",
  "vertical-take-off-wing": "Wing with vertical take-off",
};

const rotors: Kind[] = ["multirotor", "vertical-take-off-wing"];
const wings: Kind[] = ["fixed-wing", "vertical-take-off-wing"];

export const geometry: Figure[] = [
  { path: "geometry.rotors", label: "Arms with lifting rotors", unit: "", whole: true, of: rotors },
  { path: "geometry.arm_m", label: "Centre to motor axis", unit: "m", of: rotors },
  { path: "geometry.rotor_diameter_m", label: "Rotor diameter", unit: "m", of: rotors },
  { path: "geometry.span_m", label: "Wing span", unit: "m", of: wings },
  { path: "geometry.length_m", label: "Length", unit: "m", of: wings },
  { path: "geometry.chord_m", label: "Wing chord", unit: "m", of: wings },
  { path: "geometry.prop_diameter_m", label: "Propeller that drives it", unit: "m", of: wings },
];

export const limits: Figure[] = [
  { path: "limits.takeoff_mass_kg", label: "Greatest take-off mass", unit: "kg", quantity: "mass" },
  {
    path: "limits.wind_ms",
    label: "Wind, steady",
    unit: "m/s",
    quantity: "speed",
    hint: "At flight height.",
  },
  { path: "limits.gust_ms", label: "Gusts", unit: "m/s", quantity: "speed" },
  {
    path: "limits.crosswind_ms",
    label: "Crosswind at start and landing",
    unit: "m/s",
    quantity: "speed",
    optional: true,
    of: wings,
  },
  { path: "limits.flight_height_m", label: "Usual flight height", unit: "m", quantity: "length" },
  { path: "limits.planned_minutes", label: "Usual flight on full packs", unit: "min" },
  { path: "limits.land_by_percent", label: "Land by, charge", unit: "%" },
  { path: "limits.land_by_cell_mv", label: "Land by, a cell under load", unit: "mV", whole: true },
  {
    path: "limits.launch_percent",
    label: "Least charge at launch",
    unit: "%",
    optional: true,
    hint: "Only where the maker demands one.",
  },
  {
    path: "limits.warmth_outlier_c",
    label: "A motor warmer than its sisters by",
    unit: "°C",
    hint: "Over this it is overworking: Stop.",
  },
  { path: "limits.climb_ms", label: "Climb", unit: "m/s", quantity: "speed", optional: true },
  { path: "limits.descent_ms", label: "Descent", unit: "m/s", quantity: "speed", optional: true },
  { path: "limits.speed_ms", label: "Greatest speed", unit: "m/s", quantity: "speed", optional: true },
];

export const packs: Figure[] = [
  { path: "packs.count", label: "Packs in flight", unit: "", whole: true },
  { path: "packs.cells", label: "Cells in series", unit: "", whole: true },
  { path: "packs.capacity_mah", label: "Rated capacity", unit: "mAh", whole: true },
  { path: "packs.max_cycles", label: "Retired after", unit: "cycles", whole: true, optional: true },
  { path: "packs.call_out_every_s", label: "Charge called in flight every", unit: "s", whole: true },
];

export const load: Figure[] = [
  {
    path: "balance.empty_kg",
    label: "Empty, without packs and payload",
    unit: "kg",
    quantity: "mass",
    optional: true,
  },
  { path: "balance.pack_kg", label: "One pack", unit: "kg", quantity: "mass", optional: true },
  { path: "tank_l", label: "Tank", unit: "L", quantity: "volume", optional: true },
];

export const allFigures = [...geometry, ...limits, ...packs, ...load];

export const has = (f: Figure, kind: string) => !f.of || f.of.includes(kind as Kind);

/** What parts may be counted to their end by. */
export const lives = [
  { key: "hours", label: "hours" },
  { key: "flights", label: "flights" },
  { key: "landings", label: "landings" },
  { key: "months", label: "months" },
] as const;
