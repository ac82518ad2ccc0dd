import { Button, Table } from "react-bootstrap";
import { Flag } from "../parts/Flag";
import { Sheet } from "../parts/Sheet";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { minutes } from "./model";
import { inspectFigures, surveyFigures } from "./wish";

export interface FiguresProps {
  p: Plan;
  /** Takes a nearest value into its box. */
  onTake: (name: string, value: string) => void;
}

/** What a wish comes to, and what of it cannot be, each with the nearest that can. */
export function Figures({ p, onTake }: FiguresProps) {
  const u = useUnits();
  const m = (v: number) => u.show("length", v);
  const f = p.figures;
  const survey: [string, string][] = [
    ["Height over the ground", m(f.height_m)],
    ["A picture shows", `${m(f.across_m)} × ${m(f.along_m)}`],
    ["Lines apart", `${m(f.lines_m)} · ${f.lines} lines at ${Math.round(f.bearing_deg)}°`],
    ["Pictures apart", `${m(f.pictures_m)} · one each ${f.interval_s.toFixed(1)} s`],
    ["Blur", `${f.blur_px.toFixed(2)} pixels`],
    ["Beyond the edge", `${m(f.buffer_m)} · each place in ${f.views} pictures`],
  ];
  const inspection: [string, string][] = [
    ["From the surface", `${m(f.stand_m)} · one pixel shows ${f.detail_mm.toFixed(2)} mm`],
    ["A picture shows", `${m(f.wide_m)} × ${m(f.high_m)}`],
    ["Faces and rows", `${f.faces} · ${f.rows} rows`],
    ["Highest picture", m(f.top_m)],
  ];
  const both: [string, string][] = [
    ["Pictures", `${f.pictures} · ${f.card_gb.toFixed(1)} GB`],
    [
      "Flights",
      `${p.flights.length} · ${minutes(f.minutes * 60)} min in the air · packs give ${Math.round(p.usable_wh)} Wh each`,
    ],
  ];
  return (
    <Sheet title="What follows">
      {p.broken.map((b, i) => (
        <div key={i} className={`judged ${b.verdict}`}>
          <Flag verdict={b.verdict} /> {b.sentence}
          {b.nearest != null && p.may && <Take p={p} wish={b.wish} nearest={b.nearest} onTake={onTake} />}
        </div>
      ))}
      <Table>
        <tbody>
          {[...(p.kind === "survey" ? survey : inspection), ...both].map(([k, v]) => (
            <tr key={k}>
              <th scope="row">{k}</th>
              <td className="fig">{v}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {p.assumed.length > 0 && (
        <p className="soft mt-2 mb-0">Taken without being known: {p.assumed.join("; ")}.</p>
      )}
    </Sheet>
  );
}

function Take({ p, wish, nearest, onTake }: FiguresProps & { wish: string; nearest: number }) {
  const u = useUnits();
  const all: Record<string, { q?: "length" | "speed"; unit?: string }> = {
    ...(p.kind === "survey" ? surveyFigures : inspectFigures),
    buffer_m: { q: "length" },
  };
  const f = all[wish];
  if (!f) return null;
  const v = f.q ? u.value(f.q, nearest) : nearest;
  const text = String(+v.toFixed(f.q === "length" ? 0 : 1));
  return (
    <Button
      type="button"
      variant="outline-primary"
      className="ms-2"
      onClick={() => {
        onTake(wish, text);
        if (wish === "height_m" && p.kind === "survey") onTake("by", "height");
      }}
    >
      Take {text} {f.q ? u.label(f.q) : f.unit}
    </Button>
  );
}
