import { useState } from "react";
import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { useRestoreFeature } from "./api";
import { FeatureForm } from "./FeatureForm";
import { FeatureList } from "./FeatureList";
import type { Drawing } from "./useDrawing";

/** What is on the map: the form of what is drawn or chosen, or else the list. */
export function MapPanel({ s, d }: { s: Schemas["Site"]; d: Drawing }) {
  const [removed, setRemoved] = useState("");
  const restore = useRestoreFeature(s.head.id);
  const one = s.features.find((f) => f.feature.id === d.selected);
  return (
    <>
      {removed && (
        <p role="status" className="m-0">
          Taken off the map.{" "}
          <Button
            size="sm"
            variant="outline-primary"
            disabled={restore.isPending}
            onClick={() => restore.mutate(removed, { onSuccess: () => setRemoved("") })}
          >
            Bring it back
          </Button>
        </p>
      )}
      {d.now && (d.fresh || one) ? (
        <FeatureForm
          key={d.fresh ? d.fresh.id : `${one?.feature.id}-${one?.version}`}
          site={s.head.id}
          f={d.now}
          version={d.fresh ? 0 : (one?.version ?? 0)}
          findings={d.fresh ? [] : (one?.findings ?? [])}
          usualBuffer={s.usual_buffer_m}
          onDone={d.done}
          onRemoved={(f) => {
            if (!d.fresh) setRemoved(f);
            d.done();
          }}
        />
      ) : (
        <FeatureList s={s} onSelect={d.select} />
      )}
    </>
  );
}
