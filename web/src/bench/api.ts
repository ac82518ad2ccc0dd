import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { keys } from "../api/keys";

/** What a calculator makes of what is typed; nothing is kept. */
export const useCalculation = (key: string, asked: Schemas["CalculatorValues"], whole: boolean) =>
  useQuery({
    queryKey: keys.calculation(key, asked),
    queryFn: () => ask(api.POST("/bench/{key}", { params: { path: { key } }, body: asked })),
    enabled: whole,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
