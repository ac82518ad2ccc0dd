import { tiles } from "../parts/columns";
import { NumberField } from "../parts/Field";
import { useUnits } from "../parts/units";
import { has, type Figure } from "./figures";
import { unitOf } from "./model";
import type { FormOfType } from "./useTypeForm";

/** The figures of one part of a type that its layout has. */
export function FigureFields({ f, of, kind }: { f: FormOfType; of: Figure[]; kind: string }) {
  const u = useUnits();
  return (
    <div className="tiles" style={tiles(200)}>
      {of
        .filter((x) => has(x, kind))
        .map((x) => (
          <NumberField
            key={x.path}
            label={x.label}
            unit={unitOf(x, u)}
            hint={x.hint ?? (x.optional ? "May stay empty." : undefined)}
            {...f.register(`figures.${x.path}`)}
            wrong={f.said(`figures.${x.path}`)}
          />
        ))}
    </div>
  );
}
