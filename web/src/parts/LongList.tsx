import { Filters } from "./Filters";
import { useEffect, useState, type ReactNode } from "react";
import { Button, Form } from "react-bootstrap";
import type { ReadsOn } from "../api/pages";
import { useAddress } from "./address";
import { More } from "./More";
import { inOrder, page, reading, withWords, type ListOrder } from "./lists";

export interface LongListProps<T> {
  items: T[];
  /** What the words of the search are looked for in. */
  text: (t: T) => string;
  /** What is searched, for its label: "the work orders". */
  what: string;
  /** Orders to choose from, the usual one first; the choice is in the address. */
  orders?: ListOrder<T>[];
  /** Other choices beside the search. */
  tools?: ReactNode;
  /** The list on the server, where it comes in pages: it is read to its end for a search or another order. */
  pages?: ReadsOn;
  children: (shown: T[]) => ReactNode;
}

/** A list that may be long: a search when it is, so many lines at first, more with a press. */
export function LongList<T>({ items, text, what, orders = [], tools, pages, children }: LongListProps<T>) {
  const [words, setWords] = useState("");
  const [many, setMany] = useState(page);
  const [params, set] = useAddress();
  const by = params.get("by") ?? "";
  const found = inOrder(withWords(items, words, text), orders, by);
  const left = found.length - many;
  const whole = words !== "" || orders.slice(1).some((o) => o.key === by);
  const read = reading(pages);
  useEffect(() => {
    if (whole && read === "to go on") void pages?.fetchNextPage();
  }, [whole, read, pages]);
  return (
    <>
      {(tools || items.length > 8 || (orders.length > 1 && items.length > 1)) && (
        <Filters className="mt-2">
          {items.length > 8 && (
            <Form.Control
              type="search"
              placeholder="Words"
              aria-label={`Search ${what}`}
              value={words}
              onChange={(e) => setWords(e.target.value)}
            />
          )}
          {orders.length > 1 && items.length > 1 && (
            <Form.Select
              aria-label={`Order of ${what}`}
              value={orders.some((o) => o.key === by) ? by : orders[0]!.key}
              onChange={(e) => set({ by: e.target.value === orders[0]!.key ? "" : e.target.value })}
            >
              {orders.map((o) => (
                <option key={o.key} value={o.key}>
                  {o.name}
                </option>
              ))}
            </Form.Select>
          )}
          {tools}
        </Filters>
      )}
      {items.length > 0 && found.length === 0 && read === "done" && (
        <p className="mb-0">Nothing here has these words.</p>
      )}
      {whole && read !== "done" && (
        <p className="mb-0" role="status">
          {read === "stuck"
            ? `Not all of ${what} could be read: what is not shown may be there all the same.`
            : "Reading on …"}
        </p>
      )}
      {found.length > 0 && children(found.slice(0, many))}
      {left <= 0 && pages && <More of={pages} what="ones" />}
      {left > 0 && (
        <Button variant="outline-primary" className="mt-3" onClick={() => setMany(many + page)}>
          Show {Math.min(left, page)} more of {left}
        </Button>
      )}
    </>
  );
}
