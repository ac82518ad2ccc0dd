import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";

/** Keeps the head of a site: begins one, or changes it. */
export function useKeepSite(there: boolean) {
  const qc = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["SiteEdit"]) =>
      there
        ? ask(api.PUT("/sites/{id}", { params: { path: { id: body.id } }, body }))
        : ask(api.POST("/sites", { body })),
    onSuccess: () => qc.invalidateQueries({ queryKey: ["site"] }),
  });
}
