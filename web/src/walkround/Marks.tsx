import type { Item } from "./model";
import type { Typed } from "./typed";

interface Props {
  item: Item;
  typed: Typed;
  change: (part: Partial<Typed>) => void;
}

/** The marks of an item, each in order until it is pressed. */
export function Marks({ item, typed, change }: Props) {
  const turn = (id: string) =>
    change({
      wrong: typed.wrong.includes(id) ? typed.wrong.filter((x) => x !== id) : [...typed.wrong, id],
    });
  return (
    <>
      <p className="soft mb-1">Press what is not in order.</p>
      <ul className="list-unstyled border-top" aria-label="What is looked at">
        {(item.marks ?? []).map((m) => {
          const wrong = typed.wrong.includes(m.id);
          return (
            <li key={m.id}>
              <button
                type="button"
                className={`bar-key border-bottom align-items-start ${wrong ? "active" : ""}`}
                aria-pressed={wrong}
                onClick={() => turn(m.id)}
              >
                <span className="box border border-2 border-primary text-center" aria-hidden="true">
                  {wrong ? "✕" : ""}
                </span>
                <span>
                  {m.title}
                  {m.bad && <small className="soft"> {wrong ? "Not in order." : `Bad: ${m.bad}`}</small>}
                </span>
                <span className="visually-hidden">{wrong ? ": not in order" : ""}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
