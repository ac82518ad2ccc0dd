import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { Airframe } from "../drawings/Airframe";
import { SelectField } from "../parts/Field";
import { Sheet } from "../parts/Sheet";
import { counted } from "../parts/number";
import { Problem } from "../parts/states";
import { stillToDo } from "./model";
import type { FormOfType } from "./useTypeForm";

export interface TypePreviewProps {
  f: FormOfType;
  types: Schemas["TypeEntry"][];
  isNew: boolean;
  /** Key of the type whose checklist is taken over. */
  like: string;
  onLike: (key: string) => void;
  children: ReactNode;
}

/** The plan of a type as it is typed, what is still wrong with it, and whose lists it takes over. */
export function TypePreview({ f, types, isNew, like, onLike, children }: TypePreviewProps) {
  const d = f.trial.data;
  const nameOf = (key: string) => types.find((t) => t.profile.key === key)?.profile.name ?? key;
  return (
    <div className="type-preview sticky-lg-top" style={{ top: "4.5rem" }}>
      <Sheet title="As it is drawn">
        {d?.entry ? (
          <>
            <Airframe
              type={d.entry}
              marks={Object.fromEntries(d.entry.stations.map((s) => [s.id, { label: s.label }]))}
              height={300}
              label="Plan of the type as it is typed"
            />
            <p className="soft">
              {counted(d.entry.stations.length, "place")} on the walk,{" "}
              {counted(d.entry.positions.length, "part")} with a life.
            </p>
          </>
        ) : (
          <p className="soft">Enter layout and sizes, and its plan is drawn here.</p>
        )}
        {d && d.wrong.length > 0 && (
          <>
            <p className="mb-1">Still to do, {counted(d.wrong.length, "field")}:</p>
            <ul className="soft">
              {d.wrong.slice(0, 8).map((w) => (
                <li key={w.field}>{stillToDo(w, f.now)}</li>
              ))}
            </ul>
          </>
        )}
        {isNew && d && d.like.length > 0 && (
          <SelectField
            label="Takes over checklist and programme of"
            hint="Both are the crew's own then, and can be changed in Set-up."
            value={like}
            onChange={(e) => onLike(e.target.value)}
          >
            {d.like.map((k) => (
              <option key={k} value={k}>
                {nameOf(k)}
              </option>
            ))}
          </SelectField>
        )}
        {f.trial.isError && <Problem error={f.trial.error} paths />}
        {children}
      </Sheet>
    </div>
  );
}
