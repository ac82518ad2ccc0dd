import { useWrite } from "../api/write";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, ask, newId, type Schemas } from "../api/client";
import { wrote } from "../api/touched";
import { keys } from "../api/keys";
import type { Ground } from "./relief";
import type { Place } from "./shapes";

export const useSite = (id: string) =>
  useQuery({
    queryKey: keys.site(id),
    queryFn: () => ask(api.GET("/sites/{id}", { params: { path: { id } } })),
  });

/** Keeps the head of a site: begins one, or changes it. */
export function useKeepSite(there: boolean) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["SiteEdit"]) =>
      there
        ? ask(api.PUT("/sites/{id}", { params: { path: { id: body.id } }, body }))
        : ask(api.POST("/sites", { body })),
    onSuccess: () => wrote(qc, "sites"),
  });
}

/** Puts features on the map of a site, one after the other; what is there already stays. */
export function useDraw() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, features }: { id: string; features: Schemas["Feature"][] }) => {
      for (const feature of features)
        await ask(
          api.PUT("/sites/{id}/features/{feature}", {
            params: { path: { id, feature: feature.id } },
            body: { feature, version: 0 },
          }),
        );
    },
    onSuccess: () => wrote(qc, "site_features"),
  });
}

/** Puts one thing on the map, or changes it; takes it off. */
export function useFeature(site: string, feature: string) {
  const path = { id: site, feature };
  return {
    keep: useWrite(
      (body: { feature: Schemas["Feature"]; version: number }) =>
        ask(api.PUT("/sites/{id}/features/{feature}", { params: { path }, body })),
      "site_features",
    ),
    remove: useWrite(
      () => ask(api.DELETE("/sites/{id}/features/{feature}", { params: { path } })),
      "site_features",
    ),
  };
}

/** Brings a feature back that was taken off the map. */
export function useRestoreFeature(id: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (feature: string) =>
      ask(api.POST("/sites/{id}/features/{feature}/restore", { params: { path: { id, feature } } })),
    onSuccess: () => wrote(qc, "site_features"),
  });
}

export interface WayAsk {
  aircraft?: string;
  setting_m?: number;
  route_m?: number;
  work: Schemas["Job"]["work"];
}

export const useWayHome = (id: string, query: WayAsk, ready: boolean) =>
  useQuery({
    queryKey: keys.wayHome(id, query),
    queryFn: () => ask(api.GET("/sites/{id}/way-home", { params: { path: { id }, query } })),
    enabled: ready,
    placeholderData: keepPreviousData,
    retry: false,
  });

export interface SkyAsk {
  aircraft?: string;
  work: Schemas["Job"]["work"];
  ground: "water" | "open" | "crops" | "built";
}

export const useSky = (id: string, query: SkyAsk) =>
  useQuery({
    queryKey: keys.sky(id, query),
    queryFn: () => ask(api.GET("/sites/{id}/weather", { params: { path: { id }, query } })),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
  });

/** The airspace as high as a flight goes, where that is known; else as high as the rule lets. */
export const useAirspace = (id: string, query: { height_m?: number }) =>
  useQuery({
    queryKey: keys.airspace(id, query),
    queryFn: () => ask(api.GET("/sites/{id}/airspace", { params: { path: { id }, query } })),
    placeholderData: keepPreviousData,
    // What is asked for at the desk is answered soon; else a minute is enough.
    refetchInterval: (q) => (q.state.data?.authorisations.some((x) => x.state === "asked") ? 4_000 : 60_000),
  });

/** The ground of a site with a terrain, as it is drawn; it changes with the terrain alone. */
export function useGround(id: string, terrain?: Schemas["SiteTerrain"]): Ground | undefined {
  const q = useQuery({
    queryKey: keys.relief(id, terrain?.at),
    queryFn: () => ask(api.GET("/sites/{id}/relief", { params: { path: { id } } })),
    enabled: terrain !== undefined,
    staleTime: Infinity,
  });
  const at = terrain?.at ?? "";
  return useMemo(
    () => q.data && { relief: q.data, shade: `/api/v1/sites/${id}/shade?of=${encodeURIComponent(at)}` },
    [q.data, id, at],
  );
}

/** The ground along a line of two places or more, and what stands near it. */
export const useHeights = (id: string, line: Place[], state: string) =>
  useQuery({
    queryKey: keys.heights(id, line, state),
    queryFn: () =>
      ask(
        api.GET("/sites/{id}/heights", {
          params: { path: { id }, query: { line: line.map((p) => `${p.lat},${p.lon}`) } },
        }),
      ),
    enabled: line.length > 1,
    placeholderData: keepPreviousData,
  });

/** Asks the weather service for the site. */
export function useFetchWeather(id: string, ground: SkyAsk["ground"]) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: () =>
      ask(api.POST("/sites/{id}/weather/fetch", { params: { path: { id } }, body: { id: newId(), ground } })),
    onSuccess: () => wrote(qc, "site_weather"),
  });
}

/** How high a thing is, from what was measured, with its error. */
export const useMeasureHeight = () =>
  useWrite((body: Schemas["HeightReadings"]) => ask(api.POST("/tools/height", { body })));

/** Weather as a report or read by hand. */
export const useAddWeather = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["NewWeather"] }) =>
      ask(api.POST("/sites/{id}/weather", { params: { path: { id } }, body })),
    "site_weather",
  );
