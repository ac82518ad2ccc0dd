import { useQuery } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";

export const useYear = () =>
  useQuery({ queryKey: keys.year, queryFn: () => ask(api.GET("/aircraft/year")), staleTime: 60_000 });
