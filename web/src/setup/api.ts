import { wrote } from "../api/touched";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";

/** Keeps what holds for the whole crew. */
export function useKeepCrew() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["CrewEdit"]) => ask(api.PUT("/crew", { body })),
    onSuccess: () => wrote(qc, "crew"),
  });
}

export const useChangePin = () =>
  useMutation({
    mutationFn: (body: Schemas["NewPin"]) => ask(api.PUT("/session/pin", { body })),
  });

export const useChangePassword = () =>
  useMutation({
    mutationFn: (body: Schemas["NewPassword"]) => ask(api.PUT("/session/password", { body })),
  });

export const useOutside = () => useQuery({ queryKey: keys.outside, queryFn: () => ask(api.GET("/outside")) });
