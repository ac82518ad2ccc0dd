import { tiles } from "../parts/columns";
import { Fold } from "../parts/Fold";
import { DrillPicture } from "./DrillPicture";
import type { Item } from "./model";

/** Drawings of what is not in order at the places where an item looks. */
export function WhatBad({ item }: { item: Item }) {
  const all = item.pictures ?? [];
  if (!all.length) return null;
  return (
    <Fold summary="What bad looks like">
      <div className="tiles" style={tiles(150)}>
        {all.map((p) => (
          <figure key={p.key}>
            <DrillPicture drawing={p.key} />
            <figcaption className="soft">{p.shows}</figcaption>
          </figure>
        ))}
      </div>
    </Fold>
  );
}
