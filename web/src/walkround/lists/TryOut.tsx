import { Flag } from "../../parts/Flag";
import { counted } from "../../parts/number";
import { useAddress } from "../../parts/address";
import { SelectField } from "../../parts/Field";
import { QueryView } from "../../parts/states";
import { useTrial } from "./api";
import type { List } from "./model";

/** What a list asks for in a round with all conditions asked, what is wrong with it, and what it leaves uncovered. */
export function TryOut({ type, list }: { type: string; list: List }) {
  const [params, set] = useAddress();
  const round = params.get("round") ?? "walkround";
  const trial = useTrial(type, round, list);
  return (
    <QueryView query={trial} what="the trial">
      {(t) =>
        t.wrong ? (
          <div className="judged stop" role="alert">
            It cannot be used: {t.wrong}.
          </div>
        ) : (
          <>
            <SelectField label="Round" value={round} onChange={(e) => set({ round: e.target.value })}>
              {t.rounds.map((r) => (
                <option key={r.key} value={r.key}>
                  {r.title}
                </option>
              ))}
            </SelectField>
            {t.uncovered.length > 0 && (
              <div className="judged watch mb-3" role="status">
                Nothing on the full walk covers: {t.uncovered.join("; ")}.
              </div>
            )}
            <p>{counted(t.items.length, "item")}, with one pack along and every condition asked:</p>
            <ol>
              {t.items.map((it) => (
                <li key={it.id}>
                  {it.bars && <Flag verdict="stop" size={12} />} {it.title}{" "}
                  <span className="soft">
                    {it.section}, {it.kind}
                    {it.marks?.length ? ` of ${it.marks.length}` : ""}
                    {it.when?.length ? ", on condition" : ""}
                  </span>
                </li>
              ))}
            </ol>
          </>
        )
      }
    </QueryView>
  );
}
