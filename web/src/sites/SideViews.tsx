import { Button } from "react-bootstrap";
import type { Schemas } from "../api/client";
import { climbs } from "../drawings/ground";
import { GroundLine } from "../drawings/GroundLine";
import { SideView } from "../drawings/SideView";
import { Fold } from "../parts/Fold";
import { Sheet } from "../parts/Sheet";
import { QueryView } from "../parts/states";
import { useUnits } from "../parts/units";
import { useHeights } from "./api";
import { flownAt } from "./model";
import type { Place } from "./shapes";

/** The way home and the route from the side, over the ground that lies under them. */
export function WaysFromTheSide({ site, w, state }: { site: string; w: Schemas["WayHome"]; state: string }) {
  const route = useHeights(site, w.route, state);
  return (
    <>
      <Sheet title="The way home from the side">
        <SideView w={w} />
      </Sheet>
      {route.data && w.route.length > 1 && (
        <Sheet title="The route from the side">
          <GroundLine
            s={route.data}
            ends={["first place", "last place"]}
            flown={flownAt(w)}
            label={`The route from the side: ${Math.round(route.data.length_m)} m over the ground there.`}
          />
        </Sheet>
      )}
    </>
  );
}

export interface HeightsAlongProps {
  site: string;
  line: Place[];
  /** Names the state of the site file: what is charted anew is looked at anew. */
  state: string;
  onClose: () => void;
}

/** The heights along a line that was drawn on the map. */
export function HeightsAlong({ site, line, state, onClose }: HeightsAlongProps) {
  const q = useHeights(site, line, state);
  return (
    <Sheet
      title="Heights along the line"
      aside={
        <Button size="sm" variant="outline-primary" onClick={onClose}>
          Close
        </Button>
      }
    >
      <QueryView query={q} what="the heights along the line">
        {(h) => <Heights h={h} />}
      </QueryView>
    </Sheet>
  );
}

function Heights({ h }: { h: Schemas["SiteSection"] }) {
  const u = useUnits();
  const c = climbs(h.steps);
  return (
    <>
      <GroundLine
        s={h}
        ends={["from here", "to there"]}
        label={`The ground along the line of ${Math.round(h.length_m)} m`}
      />
      <p className="mb-1">
        {c
          ? `From ${u.show("length", c.low)} to ${u.show("length", c.high)}; it rises ${u.show("length", c.up)} and falls ${u.show("length", c.down)}.`
          : "Nobody knows the ground there: bring a terrain under Files, or enter the elevation of the site."}
      </p>
      {h.tops.length > 0 && (
        <Fold summary={`${h.tops.length} charted along it`}>
          <ul className="mb-0">
            {h.tops.map((t) => (
              <li key={t.id}>
                {t.name}, {u.show("length", t.from_m)} to {u.show("length", t.to_m)} along:{" "}
                {t.top_m == null ? "height not known" : `${u.show("length", t.top_m - t.foot_m)} high`}
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </>
  );
}
