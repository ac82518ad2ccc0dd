import { asText, type Fetch } from "../parts/BringIn";
import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { usePages } from "../api/pages";

/** Which flights are looked at; without a value all are. */
export interface Filter {
  q?: string;
  aircraft?: string;
  pilot?: string;
  from?: string;
  to?: string;
}

export const useTotals = (query: Filter) =>
  useQuery({
    queryKey: keys.totals(query),
    queryFn: () => ask(api.GET("/log/totals", { params: { query } })),
  });

export const useWeeks = (query: Filter) =>
  useQuery({
    queryKey: keys.weeks(query),
    queryFn: () => ask(api.GET("/log/weeks", { params: { query } })),
  });

export const useFlights = (filter: Filter) =>
  usePages({
    key: keys.log(filter),
    read: (cursor) => ask(api.GET("/log", { params: { query: { ...filter, cursor } } })),
    rows: (p) => p.flights,
  });

/** Flights from a file; each line is accounted for. */
export const bringFlights = async (file: File, fetch: Fetch) =>
  ask(api.POST("/log/import", { body: await file.text(), ...asText, fetch }));
