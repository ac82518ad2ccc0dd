import { Table } from "react-bootstrap";
import { Explained } from "../../parts/Explained";
import type { Schemas } from "../../api/client";
import { Flag, words } from "../../parts/Flag";
import { useUnits } from "../../parts/units";

export interface MassPlanProps {
  b: Schemas["MassBalance"];
  items: Schemas["MassItem"][];
  type: Schemas["TypeEntry"];
}

const names: Record<Schemas["MassItem"]["part"], string> = {
  empty: "Empty",
  packs: "Packs",
  payload: "Payload",
  attachments: "Attached",
  liquid: "In the tank",
};

/** Where the mass lies on the airframe, and what each motor lifts. */
export function MassPlan({ b, items, type }: MassPlanProps) {
  const u = useUnits();
  const limits = type.profile.balance;
  const motors = type.stations.filter((s) => s.kind === "motor" && /^motor-\d+$/.test(s.id));
  const arm = Math.max(0.3, ...motors.map((m) => Math.hypot(m.x, m.y)));
  const r = (kg: number) => (kg / Math.max(b.most_kg, 0.01)) * arm * 0.3;
  const ten = arm * 3; // millimetres are drawn large: the range is small against the arms
  return (
    <>
      <svg
        className="drawn strong"
        style={{ maxHeight: 340 }}
        viewBox={`${-arm * 1.45} ${-arm * 1.45} ${arm * 2.9} ${arm * 2.9}`}
        role="img"
        aria-label={`Centre of gravity ${Math.round(b.sum.x_m * 1000)} mm to the right and ${Math.round(b.sum.y_m * 1000)} mm ahead`}
      >
        {motors.map((m) => (
          <line key={m.id} x1={0} y1={0} x2={m.x} y2={-m.y} className="ink" strokeWidth={arm * 0.02} />
        ))}
        {motors.map((m, i) => (
          <g key={m.id} transform={`translate(${m.x} ${-m.y})`}>
            <circle r={arm * 0.3} className="paper" strokeDasharray="0.03 0.03" strokeWidth={arm * 0.01} />
            <circle
              r={r(b.shares_kg[i] ?? 0)}
              className={(b.shares_kg[i] ?? 0) > b.most_kg ? "v-stop" : "soft-fill"}
              fillOpacity={(b.shares_kg[i] ?? 0) > b.most_kg ? 0.6 : 0.3}
            />
            <text fontSize={arm * 0.16} textAnchor="middle" y={arm * 0.05}>
              {(b.shares_kg[i] ?? 0).toFixed(1)}
            </text>
          </g>
        ))}
        {limits && (
          <rect
            x={-(limits.x_m ?? 0) * ten}
            y={-(limits.ahead_m ?? 0) * ten}
            width={2 * (limits.x_m ?? 0) * ten}
            height={((limits.ahead_m ?? 0) + (limits.behind_m ?? 0)) * ten}
            className="area"
            strokeWidth={arm * 0.012}
          />
        )}
        <circle
          cx={b.sum.x_m * ten}
          cy={-b.sum.y_m * ten}
          r={arm * 0.05}
          className={b.verdict === "stop" ? "v-stop" : "dot"}
          stroke="var(--sheet)"
          strokeWidth={arm * 0.02}
        />
      </svg>
      <p className="soft">
        Circles: what each motor lifts, kg, in what it may, {b.most_kg.toFixed(1)} kg. The box in the middle
        is the range of the centre of gravity, drawn larger than it is.
      </p>
      <Table>
        <tbody>
          {items
            .filter((i) => i.kg > 0)
            .map((i) => (
              <tr key={i.part}>
                <td>{names[i.part]}</td>
                <td className="num">{u.show("mass", i.kg)}</td>
              </tr>
            ))}
          <tr>
            <td>
              <strong>Take-off</strong>
            </td>
            <td className="num">
              <strong>{u.show("mass", b.sum.kg)}</strong> of{" "}
              {u.show("mass", type.profile.limits.takeoff_mass_kg)}
            </td>
          </tr>
        </tbody>
      </Table>
      {b.says.map((s) => (
        <div key={s.sentence} className={`judged ${s.verdict} mt-2`}>
          <Flag verdict={s.verdict} size={14} />
          <span className="visually-hidden">{words[s.verdict]}: </span> <Explained text={s.sentence} />
        </div>
      ))}
    </>
  );
}
