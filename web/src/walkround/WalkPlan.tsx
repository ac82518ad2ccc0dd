import { type StationMark } from "../drawings/AirframeStation";
import { Airframe } from "../drawings/Airframe";
import { words, worst, type Verdict } from "../parts/Flag";
import { saidOf, stationsOf, wayRound, type RunSeen, type Seen } from "./model";

interface Props {
  w: RunSeen;
  entries: Map<string, Seen>;
  here?: string;
  onSelect: (station: string) => void;
}

/** The airframe with the numbered way round it and how far it is gone. */
export function WalkPlan({ w, entries, here, onSelect }: Props) {
  const way = wayRound(w.items);
  const marks: Record<string, StationMark> = {};
  way.forEach((station, n) => {
    const mine = w.items.filter((i) => stationsOf(i).includes(station));
    const done = mine.filter((i) => entries.has(i.id));
    const said = done.map((i) => saidOf(i, entries.get(i.id)!, station));
    const known = said.filter((v): v is Verdict => v !== undefined);
    const verdict = worst(known);
    marks[station] = {
      number: n + 1,
      here: station === here,
      done: known.length === mine.length && verdict === "clear",
      verdict: known.length ? verdict : undefined,
      label: `${done.length} of ${mine.length} done${known.length ? `, ${words[verdict]}` : ""}`,
    };
  });
  return (
    <Airframe
      type={w.type}
      marks={marks}
      path={way.filter((s) => w.type.stations.find((x) => x.id === s)?.kind !== "controller")}
      selected={here}
      onSelect={onSelect}
      height="var(--plan)"
      label={`Plan of ${w.aircraft} with the way round it`}
    />
  );
}
