import type { Schemas } from "../../api/client";
import { useAddress } from "../../parts/address";
import { SelectField } from "../../parts/Field";
import { QueryView } from "../../parts/states";
import { useList } from "./api";
import { changes, type List } from "./model";

interface Props {
  type: string;
  versions: Schemas["ListVersion"][];
  draft: List;
}

/** What differs between an earlier version and the list in hand. */
export function Compare({ type, versions, draft }: Props) {
  const [params, set] = useAddress();
  const earlier = versions.find((v) => v.version < draft.version)?.version ?? versions[0]?.version;
  const against = Number(params.get("against")) || earlier;
  const list = useList(type, against);
  return (
    <>
      <SelectField
        label="Compared with version"
        value={against}
        onChange={(e) => set({ against: e.target.value })}
      >
        {versions.map((v) => (
          <option key={v.version} value={v.version}>
            {v.version} of {v.at.slice(0, 10)}
          </option>
        ))}
      </SelectField>
      <QueryView query={list} what="that version">
        {(l) => {
          const all = changes(l, draft);
          if (all.length === 0) return <p>They ask the same.</p>;
          return (
            <ul>
              {all.map((c) => (
                <li key={c.id}>
                  <strong>{c.what}</strong>: {c.title}
                  {c.fields.length > 0 && <span className="soft"> ({c.fields.join(", ")})</span>}
                </li>
              ))}
            </ul>
          );
        }}
      </QueryView>
    </>
  );
}
