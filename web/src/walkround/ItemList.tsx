import { Fragment } from "react";
import { ListGroup } from "react-bootstrap";
import { Flag, words } from "../parts/Flag";
import type { RunSeen, Seen } from "./model";

interface Props {
  w: RunSeen;
  entries: Map<string, Seen>;
  here?: string;
  onChoose: (i: number) => void;
}

/** All items of a walk under their sections, each with what was found. */
export function ItemList({ w, entries, here, onChoose }: Props) {
  let section = "";
  return (
    <ListGroup variant="flush">
      {w.items.map((it, i) => {
        const e = entries.get(it.id);
        const v = e?.judgement?.verdict;
        const head = it.section !== section ? it.section : undefined;
        section = it.section ?? "";
        return (
          <Fragment key={it.id}>
            {head && <h3 className="mt-3">{head}</h3>}
            <ListGroup.Item
              action
              type="button"
              active={it.id === here}
              className="d-flex gap-3 align-items-center"
              onClick={() => onChoose(i)}
            >
              <span className="flex-shrink-0" style={{ width: 34 }}>
                {v ? <Flag verdict={v} size={14} /> : <span aria-hidden="true">{e ? "?" : "○"}</span>}
              </span>
              <span>
                {it.title}
                <span className="visually-hidden">
                  {v ? `: ${words[v]}` : e ? ": not judged yet" : ": open"}
                </span>
              </span>
            </ListGroup.Item>
          </Fragment>
        );
      })}
    </ListGroup>
  );
}
