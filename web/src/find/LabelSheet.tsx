import { tiles } from "../parts/columns";
import QRCode from "qrcode";
import { Empty } from "../parts/states";

interface Label {
  code: string;
  title: string;
  line: string;
}

/** A sheet of labels to print. */
export function Sheet({ labels }: { labels: Label[] }) {
  if (labels.length === 0) return <Empty>There is nothing to label yet.</Empty>;
  return (
    <ul className="tiles labels list-unstyled" style={tiles(290)}>
      {labels.map((l) => (
        <li key={l.code} className="border p-2 d-flex gap-3 align-items-center text-break">
          <Square text={`${location.origin}/l/${encodeURIComponent(l.code)}`} label={l.title} />
          <div>
            <strong className="fs-5">{l.title}</strong>
            <div className="fig">{l.line}</div>
          </div>
        </li>
      ))}
    </ul>
  );
}

/** A square code drawn as one path, dark on light whatever the theme, so that any scanner reads it. */
function Square({ text, label }: { text: string; label: string }) {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
  const n = modules.size;
  let d = "";
  for (let y = 0; y < n; y++)
    for (let x = 0; x < n; x++) if (modules.get(y, x)) d += `M${x + 4} ${y + 4}h1v1h-1z`;
  return (
    <svg
      viewBox={`0 0 ${n + 8} ${n + 8}`}
      width="112"
      height="112"
      role="img"
      aria-label={`Square code of ${label}`}
      shapeRendering="crispEdges"
    >
      <path d={`M0 0h${n + 8}v${n + 8}H0z`} fill="#fff" />
      <path d={d} fill="#000" />
    </svg>
  );
}
