interface Props {
  label: string;
  options: { key: string; title: string }[];
  chosen: string;
  onChoose: (key: string) => void;
}

/** One of some answers, each a large key. */
export function OneOf({ label, options, chosen, onChoose }: Props) {
  return (
    <div className="marks" role="radiogroup" aria-label={label}>
      {options.map((o) => (
        <button
          key={o.key}
          type="button"
          role="radio"
          aria-checked={chosen === o.key}
          className={chosen === o.key ? "mark chosen" : "mark"}
          onClick={() => onChoose(o.key)}
        >
          {o.title}
        </button>
      ))}
    </div>
  );
}
