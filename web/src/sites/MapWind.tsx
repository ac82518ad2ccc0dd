import L from "leaflet";
import { useMemo } from "react";
import { Marker } from "react-leaflet";
import { useUnits } from "../parts/units";
import type { Feature } from "./kinds";
import { at, middle, type Wind } from "./shapes";

/** The wind where it matters: at take-off places and over the work. */
export function WindArrows({ features, wind }: { features: Feature[]; wind: Wind }) {
  const u = useUnits();
  const words = `${u.show("speed", wind.ms)}${wind.gust ? `, gusts ${u.show("speed", wind.gust)}` : ""}`;
  const icon = useMemo(
    () =>
      L.divIcon({
        className: "",
        iconSize: [128, 128],
        html: `<svg class="drawn" viewBox="-64 -64 128 128"><path class="ink" stroke-width="3" opacity="0.8" transform="rotate(${Math.round(wind.from)})" d="M0 -62V-20M-9 -33L0 -19L9 -33"/></svg>`,
      }),
    [wind.from],
  );
  return features
    .filter((f) => f.kind === "take-off" || f.kind === "area")
    .map((f) => {
      const p = middle(f);
      return (
        p && (
          <Marker
            key={f.id}
            position={at(p)}
            icon={icon}
            interactive={false}
            keyboard={false}
            title={words}
          />
        )
      );
    });
}
