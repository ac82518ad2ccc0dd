import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";

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
  useInfiniteQuery({
    queryKey: keys.log(filter),
    queryFn: ({ pageParam }) =>
      ask(api.GET("/log", { params: { query: { ...filter, cursor: pageParam || undefined } } })),
    initialPageParam: "",
    getNextPageParam: (last) => last.next_cursor || undefined,
  });
