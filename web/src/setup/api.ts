import { useWrite } from "../api/write";
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

export const useOutside = () => useQuery({ queryKey: keys.outside, queryFn: () => ask(api.GET("/outside")) });

/** Add a type or a new version of one; a new one may take over checklist and programme of one that it is like. */
export const useAddType = () => useWrite((body: Schemas["TypeProfile"]) => ask(api.POST("/types", { body })));

/** Add a version of a maintenance programme. */
export const useAddProgramme = () =>
  useWrite(({ key, body }: { key: string; body: Schemas["Programme"] }) =>
    ask(api.POST("/types/{key}/programme", { params: { path: { key } }, body })),
  );

/** Add a version of a checklist. */
export const useAddChecklist = () =>
  useWrite(({ key, body }: { key: string; body: Schemas["Checklist"] }) =>
    ask(api.POST("/types/{key}/checklist", { params: { path: { key } }, body })),
  );
