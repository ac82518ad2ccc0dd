import { useWrite } from "../api/write";
import { api, ask, type Schemas } from "../api/client";

/** Log manual-flying practice, signed by who watched it. */
export const useLogPractice = () =>
  useWrite(
    ({ id, body }: { id: string; body: Schemas["PracticeNew"] }) =>
      ask(api.POST("/people/{id}/readiness", { params: { path: { id } }, body })),
    "practice",
  );
