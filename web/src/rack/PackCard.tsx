import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { CellBars } from "../drawings/CellBars";
import { VerdictMark, worst } from "../parts/Flag";
import { counted } from "../parts/number";
import { scale } from "./states";

export interface PackCardProps {
  p: Schemas["Pack"];
  /** While several are chosen: whether this one is, and what a press does. */
  chosen?: boolean;
  onChoose?: () => void;
}

/** A pack as its cells; a press opens it, or chooses it. */
export function PackCard({ p, chosen, onChoose }: PackCardProps) {
  if (!onChoose)
    return (
      <Link to={`/packs/${p.id}`} className="sheet">
        <Face p={p} />
      </Link>
    );
  return (
    <button
      type="button"
      className="sheet"
      aria-pressed={chosen}
      aria-label={`Choose ${p.label}`}
      onClick={onChoose}
    >
      <Face p={p} />
    </button>
  );
}

function Face({ p }: { p: Schemas["Pack"] }) {
  const [from, to] = scale(p.chemistry);
  const mv = p.reading?.cell_mv ?? [];
  return (
    <>
      <div className="d-flex justify-content-between align-items-baseline">
        <h3 className="m-0">{p.label}</h3>
        <span className="fig">{p.percent == null ? "? %" : `${Math.round(p.percent)} %`}</span>
      </div>
      {mv.length > 0 ? (
        <CellBars mv={mv} from={from} to={to} label={`Cells of ${p.label}: ${p.sentence}`} height={54} />
      ) : (
        <div className="soft d-flex align-items-center" style={{ height: 54 }}>
          cells not read
        </div>
      )}
      <div className="d-flex justify-content-between mt-1">
        <VerdictMark verdict={worst(p.full ? [p.verdict, p.full.verdict] : [p.verdict])} />
        <span className="soft fig text-nowrap">{p.spread_mv == null ? "" : `${p.spread_mv} mV`}</span>
      </div>
      <div className="soft">
        {p.fitted_to ? `on ${p.fitted_to}` : p.fits.join(", ") || "fits no type"}
        <br />
        {counted(p.cycles, "cycle")}
        {p.health_percent != null && `, health ${Math.round(p.health_percent)}\u00a0%`}
        {p.full && (
          <>
            <br />
            <strong>charged too long</strong>
          </>
        )}
      </div>
    </>
  );
}
