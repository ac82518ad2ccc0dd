import { Rows } from "../parts/Rows";
import { ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import { Sheet } from "../parts/Sheet";
import { nextStep, steps, type Step } from "./model";

/** What a crew that begins has still to set, with a tick at what is done; gone with the first flight. */
export function StartList({ all }: { all: Step[] }) {
  const next = nextStep(all);
  return (
    <Sheet
      title="From here to the first flight"
      aside={
        <span className="soft">
          {all.filter((s) => s.done).length} of {all.length} done
        </span>
      }
    >
      <Rows cols="1.6rem 1fr auto" always ordered>
        {all.map((s) => {
          const { title, why, to } = steps[s.key];
          return (
            <ListGroup.Item
              as="li"
              key={s.key}
              className={s.done ? "soft" : undefined}
              aria-current={s.key === next ? "step" : undefined}
            >
              <span aria-hidden>{s.done ? "✓" : ""}</span>
              <div>
                <strong>{title}</strong>
                <span className="visually-hidden">{s.done ? ", done" : ", to do"}</span>
                {!s.done && <div className="soft">{why}</div>}
              </div>
              <Link
                className={`btn ${s.key === next ? "btn-primary" : "btn-outline-primary"}`}
                to={to}
                aria-label={`${title}: ${s.done ? "look" : "do it"}`}
              >
                {s.done ? "Look" : "Do it"}
              </Link>
            </ListGroup.Item>
          );
        })}
      </Rows>
    </Sheet>
  );
}
