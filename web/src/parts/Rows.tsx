import type { ReactNode } from "react";
import { ListGroup } from "react-bootstrap";
import { columns } from "./columns";

export interface RowsProps {
  /** Widths of the columns; on a phone they stand one below the other. */
  cols: string;
  /** The columns stay side by side on a phone too. */
  always?: boolean;
  ordered?: boolean;
  className?: string;
  "aria-label"?: string;
  children: ReactNode;
}

/** A list whose lines stand in columns; its lines are ListGroup.Item as="li". */
export function Rows({ cols, always, ordered, className = "", children, ...rest }: RowsProps) {
  return (
    <ListGroup
      {...rest}
      as={ordered ? "ol" : "ul"}
      variant="flush"
      className={`in-columns ${always ? "always" : ""} ${className}`}
      style={columns(cols)}
    >
      {children}
    </ListGroup>
  );
}
