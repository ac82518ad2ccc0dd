import { ListGroup, Form } from "react-bootstrap";
import type { ReactNode } from "react";
import type { Schemas } from "../api/client";
import { useMay } from "../parts/session";
import { useZone } from "../parts/time";
import { useTick } from "./api";

export interface TickProps {
  e: Schemas["Evening"];
  item: string;
  label: string;
  children: ReactNode;
}

/** One line to tick off; who ticked it stands beside it. */
export function Tick({ e, item, label, children }: TickProps) {
  const may = useMay();
  const z = useZone();
  const tick = useTick(e.day);
  const done = e.ticks.find((t) => t.item === item);
  return (
    <ListGroup.Item as="li" className={done ? "soft" : undefined} data-at={item.replace(":", "-")}>
      <Form.Check.Input
        aria-label={label}
        checked={Boolean(done)}
        disabled={!may("pilot", "crew", "technician")}
        onChange={() => tick(item, !done, label)}
      />
      <span>
        {children}
        {done && (
          <span className="soft">
            {" "}
            · {done.by}, {z.time(done.at)}
          </span>
        )}
      </span>
    </ListGroup.Item>
  );
}
