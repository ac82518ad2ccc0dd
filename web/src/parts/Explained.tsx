import { useState } from "react";
import { explained, type Term, terms } from "./words";

/** A text whose words of the trade open, each in one sentence with its unit and source. */
export function Explained({ text }: { text: string }) {
  const [open, setOpen] = useState("");
  const said = open ? terms[open] : undefined;
  return (
    <>
      {explained(text).map((p, i) =>
        p.term ? (
          <button
            key={i}
            type="button"
            className="term"
            aria-expanded={open === p.term}
            onClick={() => setOpen(open === p.term ? "" : p.term!)}
          >
            {p.text}
          </button>
        ) : (
          <span key={i}>{p.text}</span>
        ),
      )}
      {said && <Sentence t={said} />}
    </>
  );
}

function Sentence({ t }: { t: Term }) {
  return (
    <span className="d-block my-1 ps-2 border-start border-3 fw-normal fs-6" role="note">
      {t.says}{" "}
      <span className="soft">
        {t.unit && `In ${t.unit}. `}Source: {t.source}.
      </span>
    </span>
  );
}
