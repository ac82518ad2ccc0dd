import { z } from "zod";
import { readEach, typedNumber } from "../parts/typed";

/** Weather that grounds an aircraft, in the words a report uses. */
export const seen = [
  "thunder or towering cloud",
  "rain or drizzle",
  "snow, ice or hail",
  "fog",
  "blown sand or dust",
];

export const readings: [string, string, string, number, number][] = [
  ["wind_ms", "Wind, steady", "m/s", 0, 60],
  ["gust_ms", "Gusts", "m/s", 0, 90],
  ["from_deg", "From", "°", 0, 360],
  ["wind_height_m", "Measured at a height of", "m", 0.5, 500],
  ["temp_c", "Temperature", "°C", -60, 60],
  ["humidity_percent", "Humidity", "%", 1, 100],
  ["dew_c", "or dew point", "°C", -80, 60],
  ["qnh_hpa", "Pressure (QNH)", "hPa", 850, 1100],
  ["visibility_km", "Visibility", "km", 0, 100],
  ["cloud_base_ft", "Lowest cloud, above the site", "ft", 0, 60000],
  ["low_c", "Temperature at 2 m, for the inversion", "°C", -60, 60],
  ["high_c", "Temperature at 10 m", "°C", -60, 60],
];

/** What one sees in a wind of each class of the Beaufort scale. */
export const byEye = [
  "smoke rises straight up",
  "smoke drifts, vanes do not turn",
  "felt on the face, leaves rustle",
  "leaves and twigs move all the time",
  "dust and paper rise, small branches move",
  "small trees in leaf sway",
  "large branches move, wires whistle",
  "whole trees move, walking is hard",
  "twigs break off",
  "slates come off roofs",
  "trees are uprooted",
  "damage all around",
  "nothing is left standing",
];

/** A report as it was sent, with where its station stands; as it is typed. */
export const reportForm = z.object({
  report: z.string(),
  station_m: typedNumber(-500, 6000, "m").transform((v) => v ?? undefined),
  station_km: typedNumber(0, 2000, "km").transform((v) => v ?? undefined),
});

/** What was typed of the air on the spot: each figure or nothing, and what cannot be. */
export function readHand(typed: Record<string, string>) {
  const read = readEach(
    typed,
    Object.fromEntries(readings.map(([k, , unit, min, max]) => [k, typedNumber(min, max, unit)])),
  );
  if (read.values.wind_height_m == null)
    read.wrong.wind_height_m ??= "Enter at what height the wind was measured.";
  return read;
}
