import { Children, type ReactNode } from "react";
import { Col, Row } from "react-bootstrap";

/** Choices above a list, beside each other; on a phone two in a row. */
export function Filters({ className = "mb-3", children }: { className?: string; children: ReactNode }) {
  return (
    <Row className={`g-2 align-items-end d-print-none ${className}`}>
      {Children.map(
        children,
        (c) =>
          c && (
            <Col xs={6} sm="auto">
              {c}
            </Col>
          ),
      )}
    </Row>
  );
}
