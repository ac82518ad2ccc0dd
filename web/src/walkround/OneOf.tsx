interface Props {
  label: string;
  options: { key: string; title: string }[];
  chosen: string;
  onChoose: (key: string) => void;
}

/** One of some answers, each a large key. */
export function OneOf({ label, options, chosen, onChoose }: Props) {
  return (
    <div className="border-top mb-3" role="radiogroup" aria-label={label}>
      {options.map((o) => (
        <button
          key={o.key}
          type="button"
          role="radio"
          aria-checked={chosen === o.key}
          className={`bar-key border-bottom ${chosen === o.key ? "active" : ""}`}
          onClick={() => onChoose(o.key)}
        >
          {o.title}
        </button>
      ))}
    </div>
  );
}
