import { useComputeForecasts } from "./api";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { api, ask } from "../api/client";
import { keys } from "../api/keys";
import { Problem } from "../parts/states";
import { useAge } from "../parts/time";

/** The forecast of the whole rack: runs in the background, with its progress. */
export function Forecasts() {
  const computeForecasts = useComputeForecasts();
  const age = useAge();
  const [error, setError] = useState<unknown>();
  const q = useQuery({
    queryKey: keys.background,
    queryFn: () => ask(api.GET("/background")),
    refetchInterval: (x) =>
      x.state.data?.work.some((w) => w.state === "waiting" || w.state === "running") ? 1000 : false,
  });
  const w = q.data?.work.find((x) => x.kind === "pack-forecasts");
  const start = async () => {
    setError(undefined);
    try {
      await computeForecasts.mutateAsync();
    } catch (e) {
      setError(e);
    }
  };
  const busy = w?.state === "waiting" || w?.state === "running";
  return (
    <div>
      <Button variant="outline-primary" disabled={busy} onClick={() => void start()}>
        Compute all forecasts again
      </Button>
      {error !== undefined && <Problem error={error} />}
      {w && (
        <div role="status" className="mt-2">
          {busy ? (
            <>
              {w.state === "waiting" ? "Waiting for its turn" : `${w.done} of ${w.total} packs`}
              <progress className="w-100" value={w.done} max={Math.max(w.total, 1)} />
            </>
          ) : w.state === "failed" ? (
            `Stopped. ${w.message}`
          ) : (
            <span className="soft">
              {w.total} packs, {w.ended_at && age(w.ended_at)}
            </span>
          )}
        </div>
      )}
    </div>
  );
}
