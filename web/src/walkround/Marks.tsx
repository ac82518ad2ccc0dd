import { ListGroup } from "react-bootstrap";
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
      <ListGroup variant="flush" className="border-top mb-3" role="group" aria-label="What is looked at">
        {(item.marks ?? []).map((m) => {
          const wrong = typed.wrong.includes(m.id);
          return (
            <ListGroup.Item
              key={m.id}
              action
              type="button"
              active={wrong}
              className="d-flex gap-3 align-items-start"
              aria-pressed={wrong}
              onClick={() => turn(m.id)}
            >
              <span
                className="flex-shrink-0 lh-sm border border-2 border-primary text-center"
                style={{ width: "1.5rem", height: "1.5rem" }}
                aria-hidden="true"
              >
                {wrong ? "✕" : ""}
              </span>
              <span>
                {m.title}
                {m.bad && (
                  <small className="soft d-block"> {wrong ? "Not in order." : `Bad: ${m.bad}`}</small>
                )}
              </span>
              <span className="visually-hidden">{wrong ? ": not in order" : ""}</span>
            </ListGroup.Item>
          );
        })}
      </ListGroup>
    </>
  );
}
