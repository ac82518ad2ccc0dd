import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";

export const useTypes = () =>
  useQuery({ queryKey: keys.types, queryFn: () => ask(api.GET("/types")), staleTime: 60_000 });

export const useFleet = () =>
  useQuery({ queryKey: keys.fleet, queryFn: () => ask(api.GET("/aircraft")), refetchInterval: 60_000 });

export const useAircraft = (id: string) =>
  useQuery({
    queryKey: keys.aircraft(id),
    queryFn: () => ask(api.GET("/aircraft/{id}", { params: { path: { id } } })),
    refetchInterval: 60_000,
  });
