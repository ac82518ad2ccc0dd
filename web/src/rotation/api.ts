import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";

/** How many days are let pass, and from which chance: the same day gives the same answer. */
const tries = { runs: 200, seed: 1 };

/** A day of flying as it would pass; nothing is kept. */
export const useRotation = (day: Schemas["RotationAsk"]["day"] | undefined) =>
  useQuery({
    queryKey: keys.rotation(day),
    queryFn: () => ask(api.POST("/rotation", { body: { day: day!, ...tries } })),
    enabled: day !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
