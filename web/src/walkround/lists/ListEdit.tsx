import { Rows } from "../../parts/Rows";
import { useState } from "react";
import { Button, ListGroup } from "react-bootstrap";
import type { Schemas } from "../../api/client";
import { Sheet } from "../../parts/Sheet";
import { ItemEdit } from "./ItemEdit";
import { blank, moved, withItem, withoutItem, type List, type Place } from "./model";

interface Props {
  entry: Schemas["TypeEntry"];
  list: List;
  /** Nothing for who may only read. */
  onChange?: (l: List) => void;
}

/** The items of a list under their sections, with what is done to each. */
export function ListEdit({ entry, list, onChange }: Props) {
  const [at, setAt] = useState<Place>();
  return (
    <div className="vstack gap-3">
      {list.sections.map((s, section) => (
        <Sheet
          key={section}
          title={s.title}
          aside={<span className="soft">{(s.in ?? ["walkround"]).join(", ")}</span>}
        >
          <Rows cols="minmax(0, 1fr) auto">
            {s.items.map((it, item) => (
              <ListGroup.Item as="li" key={it.id}>
                <span>
                  <strong>{it.title}</strong>{" "}
                  <span className="soft">
                    {it.kind}
                    {it.short && ", turnaround too"}
                    {it.when?.length ? ", on condition" : ""}
                  </span>
                </span>
                {onChange && (
                  <span className="d-flex gap-2">
                    <Button
                      size="sm"
                      variant="outline-primary"
                      aria-label={`Move ${it.title} up`}
                      onClick={() => onChange(moved(list, { section, item }, -1))}
                    >
                      ↑
                    </Button>
                    <Button
                      size="sm"
                      variant="outline-primary"
                      aria-label={`Move ${it.title} down`}
                      onClick={() => onChange(moved(list, { section, item }, 1))}
                    >
                      ↓
                    </Button>
                    <Button
                      size="sm"
                      variant="outline-primary"
                      aria-label={`Edit ${it.title}`}
                      onClick={() => setAt({ section, item })}
                    >
                      Edit
                    </Button>
                    <Button
                      size="sm"
                      variant="outline-danger"
                      aria-label={`Remove ${it.title}`}
                      onClick={() => onChange(withoutItem(list, { section, item }))}
                    >
                      Remove
                    </Button>
                  </span>
                )}
              </ListGroup.Item>
            ))}
          </Rows>
          {onChange && (
            <Button
              size="sm"
              variant="outline-primary"
              className="mt-2"
              onClick={() => setAt({ section, item: s.items.length })}
            >
              Add an item to {s.title}
            </Button>
          )}
        </Sheet>
      ))}
      {at && onChange && (
        <ItemEdit
          entry={entry}
          item={list.sections[at.section]!.items[at.item] ?? blank}
          onClose={() => setAt(undefined)}
          onSave={(it) => {
            onChange(withItem(list, at, it));
            setAt(undefined);
          }}
        />
      )}
    </div>
  );
}
