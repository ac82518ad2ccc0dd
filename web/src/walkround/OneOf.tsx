import { ListGroup } from "react-bootstrap";
interface Props {
  label: string;
  options: { key: string; title: string }[];
  chosen: string;
  onChoose: (key: string) => void;
}

/** One of some answers, each a large key. */
export function OneOf({ label, options, chosen, onChoose }: Props) {
  return (
    <ListGroup variant="flush" className="border-top mb-3" role="radiogroup" aria-label={label}>
      {options.map((o) => (
        <ListGroup.Item
          key={o.key}
          action
          type="button"
          active={chosen === o.key}
          role="radio"
          aria-checked={chosen === o.key}
          onClick={() => onChoose(o.key)}
        >
          {o.title}
        </ListGroup.Item>
      ))}
    </ListGroup>
  );
}
