import { useUnits } from "../parts/units";
import type { Feature } from "./kinds";
import { lee, type Wind } from "./shapes";

const hatched: Partial<Record<Feature["kind"], string>> = {
  area: "lines: work area",
  "no-go": "crosses: no-go",
  sensitive: "dots: sensitive",
  interference: "bars: interference",
};

/** What the hatching of the map says, and the wind that is drawn on it. */
export function MapKey({ features, wind }: { features: Feature[]; wind?: Wind }) {
  const u = useUnits();
  const words = Object.entries(hatched).flatMap(([kind, w]) =>
    features.some((f) => f.kind === kind && f.shape === "area") ? [w] : [],
  );
  if (features.some((f) => lee(f, wind))) words.push("waves: rough air behind what stands");
  const blows = wind
    ? `Wind ${u.show("speed", wind.ms)}${wind.gust ? `, gusts ${u.show("speed", wind.gust)}` : ""}, from ${Math.round(wind.from)}°.`
    : "The wind is not known.";
  return (
    <p className="soft m-0">
      {blows} {words.length > 0 && `On the map: ${words.join("; ")}.`}
    </p>
  );
}
