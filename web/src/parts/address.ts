import { useCallback } from "react";
import { useSearchParams } from "react-router";

/** The state of a view that lives in its address: reads it, and changes it without a new step in the history. */
export function useAddress(): [URLSearchParams, (changes: Record<string, string>) => void] {
  const [params, setParams] = useSearchParams();
  const set = useCallback(
    (changes: Record<string, string>) =>
      setParams(
        (p) => {
          for (const [k, v] of Object.entries(changes)) {
            if (v) p.set(k, v);
            else p.delete(k);
          }
          return p;
        },
        { replace: true },
      ),
    [setParams],
  );
  return [params, set];
}
