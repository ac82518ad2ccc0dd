import { useWrite } from "../api/write";
import { wrote } from "../api/touched";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";

export type Person = Schemas["Person"];
export type Once = Schemas["OncePassword"];

/** Adds a person; the answer holds a one-time password that nobody can ask for again. */
export function useAddPerson() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["NewPerson"]) => ask(api.POST("/people", { body })),
    onSuccess: () => wrote(qc, "people"),
  });
}

/** Changes a person; judgements of what they may do change with it. */
export function useChangePerson(id: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["PersonEdit"]) =>
      ask(api.PUT("/people/{id}", { params: { path: { id } }, body })),
    onSuccess: () => wrote(qc, "people", "documents"),
  });
}

/** Gives a person a one-time password and ends their sessions. */
export function useResetPassword(id: string) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: () => ask(api.POST("/people/{id}/one-time-password", { params: { path: { id } } })),
    onSuccess: () => wrote(qc, "people"),
  });
}

/** The way from a one-time password to one's own; the session goes on as a full one. */
export function useChooseSecrets() {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["OwnSecrets"]) => ask(api.PUT("/session/secrets", { body })),
    onSuccess: () => wrote(qc, "people"),
  });
}

/** Declare whether one is fit to fly today. */
export const useDeclareFit = () =>
  useWrite((body: Schemas["FitnessNew"]) => ask(api.POST("/fitness", { body })), "fitness");

/** Put a document on file, or change it; version 0 is a new one. */
export const useSaveDocument = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["DocumentEdit"] }) =>
      ask(api.PUT("/documents/{id}", { params: { path: { id } }, body })),
    "documents",
  );

/** Take a document off the file. */
export const useRemoveDocument = () =>
  useWrite(
    ({ id }: { id: string }) => ask(api.DELETE("/documents/{id}", { params: { path: { id } } })),
    "documents",
  );

/** Sign out. */
export const useSignOut = () => useWrite(() => ask(api.DELETE("/session")));

/** Changes one's own PIN. */
export const useChangePin = () =>
  useMutation({
    mutationFn: (body: Schemas["NewPin"]) => ask(api.PUT("/session/pin", { body })),
  });

/** Changes one's own password; other devices are signed out. */
export const useChangePassword = () =>
  useMutation({
    mutationFn: (body: Schemas["NewPassword"]) => ask(api.PUT("/session/password", { body })),
  });
