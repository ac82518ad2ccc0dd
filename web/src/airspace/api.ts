import { asText, type Fetch } from "../parts/BringIn";
import { useWrite } from "../api/write";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask, newId, type Schemas } from "../api/client";
import { wrote } from "../api/touched";

export type CallKind = "start" | "end";
export type CallHow = "desk" | "spoken";

/** Looks again whatever comes of it: a press that was refused may have been done by somebody else. */
function useTold() {
  const qc = useQueryClient();
  return () => wrote(qc, "zones", "site_airspace", "authorisations", "authorisation_calls");
}

/** Asks the airspace desk for the zones round a site. */
export function useLookUp(site: string) {
  const onSettled = useTold();
  return useMutation({
    mutationFn: () => ask(api.POST("/sites/{id}/airspace/look", { params: { path: { id: site } } })),
    onSettled,
  });
}

/** Takes a zone of a file off again. */
export function useTakeOff() {
  const onSettled = useTold();
  return useMutation({
    mutationFn: (id: string) => ask(api.DELETE("/zones/{id}", { params: { path: { id } } })),
    onSettled,
  });
}

/** Keeps that a call was made, at the desk or spoken. */
export function useCall() {
  const onSettled = useTold();
  return useMutation({
    mutationFn: (c: { id: string; kind: CallKind; how: CallHow }) =>
      ask(
        api.POST("/authorisations/{id}/calls", {
          params: { path: { id: c.id } },
          body: { id: newId(), kind: c.kind, how: c.how },
        }),
      ),
    onSettled,
  });
}

/** Withdraws what was asked for or granted. */
export function useWithdrawGrant() {
  const onSettled = useTold();
  return useMutation({
    mutationFn: (id: string) => ask(api.DELETE("/authorisations/{id}", { params: { path: { id } } })),
    onSettled,
  });
}

/** Ask the desk for an authorisation, or put one on record. */
export const useAskAuthorisation = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["AuthorisationNew"] }) =>
      ask(api.PUT("/authorisations/{id}", { params: { path: { id } }, body })),
    "authorisations",
  );

/** Zones from a file, as they come; each feature is accounted for. */
export const bringZones = async (site: string, file: File, fetch: Fetch) =>
  ask(
    api.POST("/sites/{id}/airspace/import", {
      params: { path: { id: site } },
      body: await file.text(),
      ...asText,
      fetch,
    }),
  );
