import { Sum, Sums } from "../parts/Sums";
import { Explained } from "../parts/Explained";
import { Button } from "react-bootstrap";
import { Flag, words } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { rateOf, rates, totals } from "./model";
import { typedWish, type Typed } from "./wish";

type Taken = (name: keyof Typed, value: string) => void;

/** The fields of a plan whose nearest possible value can be taken with one press. */
const takes: Record<string, keyof Typed> = {
  rate: "rate",
  speed: "speed_ms",
  edge_m: "edge_m",
  swath_m: "swath_m",
  tank: "tank_l",
};

/** What follows from the wish in figures, and which wish breaks. */
export function Figures({ p, onTake }: { p: Plan; onTake: Taken }) {
  const u = useUnits();
  const r = rates(u);
  const per = rateOf(r, p.wish.granules);
  const t = totals(p);
  const area = (ha: number) => `${(ha / r.area).toFixed(2)} ${r.areaLabel}`;
  const volume = (l: number) => (p.wish.granules ? u.show("mass", l) : u.show("volume", l));
  const take = (wish: string, nearest: number) => {
    const field = takes[wish];
    if (!field) return;
    const key = { rate: "rate", speed: "speed_ms", edge_m: "edge_m", swath_m: "swath_m", tank: "tank_l" }[
      wish
    ]!;
    onTake(field, typedWish({ ...p.wish, [key]: nearest }, u)[field] as string);
  };
  return (
    <Sheet title="What follows">
      <Sums aria-live="polite">
        <Sum figure={area(p.once_ha)}>of {area(p.area_ha)} reached</Sum>
        <Sum figure={p.sorties.length}>{p.sorties.length === 1 ? "flight" : "flights"} left</Sum>
        <Sum figure={volume(t.litres)}>{p.wish.granules ? "to spread" : "of mix"}</Sum>
        <Sum figure={p.settings.flow_l_min.toFixed(2)}>
          {p.wish.granules ? "kg/min" : "L/min"}
          {p.bar > 0 && ` · ${p.nozzle_l_min.toFixed(2)} L/min each at ${p.bar.toFixed(1)} bar`}
        </Sum>
      </Sums>
      <p className="soft mb-1">
        {(p.settings.rate / per.by).toFixed(1)} {per.label} · {u.show("speed", p.settings.speed_ms)} ·{" "}
        {u.show("length", p.settings.swath_m)} {p.wish.granules ? "wide" : "swath"} · strips{" "}
        {Math.round(p.bearing_deg)}° · {p.passes.length} passes · {area(p.done_ha)} sprayed
        {p.twice_ha > 0.005 && ` · ${area(p.twice_ha)} twice`}
      </p>
      <p className="mb-1">
        {[
          ...(p.wish.granules ? [] : [`Water ${u.show("volume", t.water)}`]),
          ...p.wish.mix.map((m, i) => `${m.name} ${t.products[i]!.toFixed(2)} ${m.unit}`),
        ].join(" · ")}
      </p>
      {p.broken.map((b) => (
        <div key={b.wish + b.sentence} className={`judged ${b.verdict} mb-1`}>
          <Flag verdict={b.verdict} size={14} />
          <span className="visually-hidden">{words[b.verdict]}: </span> <Explained text={b.sentence} />
          {b.nearest != null && takes[b.wish] && (
            <Button
              variant="outline-primary"
              size="sm"
              className="ms-2 d-print-none"
              onClick={() => take(b.wish, b.nearest!)}
            >
              Take the nearest
            </Button>
          )}
        </div>
      ))}
      {p.assumed.length > 0 && <p className="soft mb-0">Assumed: {p.assumed.join("; ")}.</p>}
      <p className="soft mb-0">
        Dry {u.show("mass", p.dry_kg)}, at most {u.show("mass", p.most_kg)} today; the packs give{" "}
        {Math.round(p.usable_wh)} Wh over the level at which it lands. The label, the law and the
        maker&rsquo;s manual decide where they differ.
      </p>
    </Sheet>
  );
}
