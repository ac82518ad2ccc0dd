import { Link, Navigate, useParams } from "react-router";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Empty, QueryView } from "../parts/states";
import { pathOf, useFind } from "./Find";

/** What a scanned or typed label opens: the thing itself, or what comes near when none has just this number. */
export function LabelView() {
  const { code = "" } = useParams();
  const q = useFind(code);
  return (
    <QueryView query={q} what="the label">
      {(d) => {
        const first = d.found[0];
        const same =
          first &&
          [first.id, first.name, ...first.detail.split(" · ")].some(
            (w) => w.toLowerCase() === code.toLowerCase(),
          );
        if (first && (same || d.found.length === 1)) return <Navigate to={pathOf(first)} replace />;
        return (
          <>
            <ViewHead title={`Label ${code}`} />
            {d.found.length === 0 ? (
              <Empty>
                Nothing of this crew carries this label. Check the number, or whether the label is another
                crew&rsquo;s.
              </Empty>
            ) : (
              <Sheet title="Which one?">
                <ul className="mb-0">
                  {d.found.map((f) => (
                    <li key={f.id}>
                      <Link to={pathOf(f)}>{f.name}</Link> <span className="soft">{f.detail}</span>
                    </li>
                  ))}
                </ul>
              </Sheet>
            )}
          </>
        );
      }}
    </QueryView>
  );
}
