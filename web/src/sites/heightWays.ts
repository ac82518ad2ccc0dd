import { readEach, typedNumber } from "../parts/typed";

export type How = "clinometer" | "two angles" | "two stations" | "shadow";

type Name = "distance" | "angle" | "base_angle" | "shadow" | "stick" | "stick_shadow";

interface Entry {
  name: Name;
  label: string;
  unit: string;
  min: number;
  max: number;
  sigma: string;
}

export const m = (name: Name, label: string, sigma: string, max = 2000): Entry => ({
  name,
  label,
  unit: "m",
  min: 0.05,
  max,
  sigma,
});

const deg = (name: Name, label: string, min = 0): Entry => ({
  name,
  label,
  unit: "°",
  min,
  max: 80,
  sigma: "1",
});

export const ways: Record<
  How,
  { words: string; entries: Entry[]; eye: boolean; measured: "clinometer" | "two stations" | "shadow" }
> = {
  clinometer: {
    words: "Foot level with yours: walk back, measure the distance and the angle to the top.",
    entries: [m("distance", "Distance to the foot", "0.5"), deg("angle", "Angle to the top")],
    eye: true,
    measured: "clinometer",
  },
  "two angles": {
    words: "On a slope: angles to the top and to the foot (below you: negative).",
    entries: [
      m("distance", "Distance, level", "0.5"),
      deg("angle", "Angle to the top", -80),
      deg("base_angle", "Angle to the foot", -80),
    ],
    eye: false,
    measured: "clinometer",
  },
  "two stations": {
    words: "The foot cannot be reached: two places in line with it, the angle from each.",
    entries: [
      m("distance", "Between the places", "0.1", 1000),
      deg("angle", "Angle from the far place"),
      deg("base_angle", "Angle from the near place"),
    ],
    eye: true,
    measured: "two stations",
  },
  shadow: {
    words: "In the sun, on level ground: its shadow, and the shadow of an upright stick.",
    entries: [
      m("shadow", "Its shadow", "0.2", 1000),
      m("stick", "Stick", "0.01", 10),
      m("stick_shadow", "Shadow of the stick", "0.02", 50),
    ],
    eye: false,
    measured: "shadow",
  },
};

/** What was typed of a way: the measure to work out, or what cannot be, by field. */
export function readWay(how: How, text: Record<string, string>) {
  const way = ways[how];
  const must = (min: number, max: number, unit: string) => typedNumber(min, max, unit, "Enter it.");
  const { values, wrong } = readEach(
    { ...Object.fromEntries(way.entries.map((e) => [`${e.name}-s`, e.sigma])), ...text },
    Object.fromEntries([
      ...way.entries.flatMap((e) => [
        [e.name, must(e.min, e.max, e.unit)] as const,
        [`${e.name}-s`, must(0, 50, e.unit)] as const,
      ]),
      ...(way.eye ? [["eye", must(0, 3, "m")] as const] : []),
    ]),
  );
  const body = {
    how,
    ...Object.fromEntries(
      way.entries.map((e) => [e.name, { v: values[e.name], sigma: values[`${e.name}-s`] }]),
    ),
    ...(way.eye && { eye_m: values.eye ?? undefined }),
  };
  return { body, wrong };
}
