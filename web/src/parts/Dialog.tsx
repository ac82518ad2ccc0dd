import type { ReactNode } from "react";
import { CloseButton, Modal } from "react-bootstrap";

export interface DialogProps {
  title: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
  wide?: boolean;
}

export function Dialog({ title, open, onClose, children, wide }: DialogProps) {
  return (
    <Modal
      show={open}
      onHide={onClose}
      animation={false}
      size={wide ? "lg" : undefined}
      aria-label={title}
      scrollable
    >
      <Modal.Header>
        <h2 className="m-0">{title}</h2>
        <CloseButton onClick={onClose} aria-label="Close" style={{ width: 32, height: 32 }} />
      </Modal.Header>
      <Modal.Body>{children}</Modal.Body>
    </Modal>
  );
}
