import { CellsField } from "../parts/CellsField";
import { Fold } from "../parts/Fold";
import type { EntryProps } from "./EntryFields";
import { Marks } from "./Marks";
import { capital } from "../parts/text";
import { memberOf, unitOf } from "./typed";

/** All alike until one is pressed; with numbers where the aircraft shows them. */
export function Alike({ item, typed, sentence, change }: EntryProps) {
  return (
    <>
      <Marks item={item} typed={typed} change={change} />
      {item.compare && (
        <Fold summary={`${capital(item.quantity)} of each motor, where it shows it`}>
          <CellsField
            label={`${capital(item.quantity)} of each motor`}
            unit={unitOf(item)}
            name={(i) => memberOf(item, i)}
            count={item.count ?? 0}
            values={typed.set}
            onChange={(set) => change({ set })}
            wrong={typed.set.length ? sentence : undefined}
          />
        </Fold>
      )}
    </>
  );
}
