import { useState, type ReactNode } from "react";
import { Button } from "react-bootstrap";
import { page, withWords } from "./lists";

export interface LongListProps<T> {
  items: T[];
  /** What the words of the search are looked for in. */
  text: (t: T) => string;
  /** What is searched, for its label: "the work orders". */
  what: string;
  /** Other choices beside the search. */
  tools?: ReactNode;
  children: (shown: T[]) => ReactNode;
}

/** A list that may be long: a search when it is, so many lines at first, more with a press. */
export function LongList<T>({ items, text, what, tools, children }: LongListProps<T>) {
  const [words, setWords] = useState("");
  const [many, setMany] = useState(page);
  const found = withWords(items, words, text);
  const left = found.length - many;
  return (
    <>
      {(tools || items.length > 8) && (
        <div className="filters no-print">
          {items.length > 8 && (
            <input
              type="search"
              className="form-control"
              style={{ width: 230 }}
              placeholder="Words"
              aria-label={`Search ${what}`}
              value={words}
              onChange={(e) => setWords(e.target.value)}
            />
          )}
          {tools}
        </div>
      )}
      {items.length > 0 && found.length === 0 && <p className="mb-0">Nothing here has these words.</p>}
      {children(found.slice(0, many))}
      {left > 0 && (
        <Button variant="outline-primary" className="mt-3" onClick={() => setMany(many + page)}>
          Show {Math.min(left, page)} more of {left}
        </Button>
      )}
    </>
  );
}
