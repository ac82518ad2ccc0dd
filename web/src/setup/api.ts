import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";

/** Pages that say times, lengths and names as the crew set them; lists of what is on file stay. */
const said = [
  ["session"],
  ["day"],
  ["log"],
  ["jobs"],
  ["evening"],
  ["site"],
  ["fleet"],
  ["packs"],
  ["due"],
  ["gate"],
];

/** Keeps what holds for the whole crew. */
export function useKeepCrew() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["CrewEdit"]) => ask(api.PUT("/crew", { body })),
    onSuccess: () => Promise.all(said.map((queryKey) => qc.invalidateQueries({ queryKey }))),
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
