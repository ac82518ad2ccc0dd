import { Rows } from "../parts/Rows";
import { Button, ListGroup } from "react-bootstrap";
import type { Item } from "./model";
import type { Typed } from "./typed";

interface Props {
  item: Item;
  typed: Typed;
  change: (part: Partial<Typed>) => void;
}

/** Go or no go of everybody by name. */
export function Votes({ item, typed, change }: Props) {
  const said = (name: string) => typed.poll.find((v) => v.name === name)?.go;
  const put = (name: string, go: boolean) =>
    change({ poll: [...typed.poll.filter((v) => v.name !== name), { name, go }] });
  return (
    <Rows cols="minmax(0, 1fr) auto auto" always aria-label="Asked by name">
      {(item.names ?? []).map((name) => (
        <ListGroup.Item as="li" key={name} className="vote">
          <strong>{name}</strong>
          <Button
            type="button"
            variant={said(name) === true ? "primary" : "outline-primary"}
            aria-pressed={said(name) === true}
            aria-label={`${name}: go`}
            onClick={() => put(name, true)}
          >
            Go
          </Button>
          <Button
            type="button"
            variant={said(name) === false ? "danger" : "outline-danger"}
            aria-pressed={said(name) === false}
            aria-label={`${name}: no go`}
            onClick={() => put(name, false)}
          >
            No go
          </Button>
        </ListGroup.Item>
      ))}
    </Rows>
  );
}
