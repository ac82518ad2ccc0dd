import { Form, ListGroup } from "react-bootstrap";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useState, type KeyboardEvent } from "react";
import { useNavigate } from "react-router";
import { api, ask, type Schemas } from "../api/client";
import { labelCode } from "../parts/label";

type Found = Schemas["Found"];

/** Where a found thing is shown. */
export function pathOf(f: Found): string {
  switch (f.kind) {
    case "aircraft":
      return `/fleet/${f.id}`;
    case "pack":
      return `/packs/${f.id}`;
    case "part":
      return `/part/${f.id}`;
    case "site":
      return `/sites/${f.id}`;
    case "job":
      return `/jobs/${f.id}`;
    case "gear":
      return `/tonight?at=gear-${f.id}`;
    case "person":
      return `/crew/${f.id}`;
  }
}

export function useFind(words: string) {
  return useQuery({
    queryKey: ["find", words],
    queryFn: () => ask(api.GET("/find", { params: { query: { q: words } } })),
    enabled: words.length > 0 && words.length <= 60,
  });
}

/** Finds anything by name, label, serial or registration; a label scanner types into it and presses Enter. */
export function Find() {
  const go = useNavigate();
  const id = useId();
  const [text, setText] = useState("");
  const [words, setWords] = useState("");
  const [at, setAt] = useState(0);
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setWords(labelCode(text)), 150);
    return () => clearTimeout(timer);
  }, [text]);
  const q = useFind(words);
  const found = words ? (q.data?.found ?? []) : [];
  const choose = (f: Found) => {
    setText("");
    setWords("");
    setOpen(false);
    void go(pathOf(f));
  };
  const onKey = (e: KeyboardEvent) => {
    if (e.key === "ArrowDown") setAt(Math.min(at + 1, found.length - 1));
    else if (e.key === "ArrowUp") setAt(Math.max(at - 1, 0));
    else if (e.key === "Escape") setOpen(false);
    else if (e.key === "Enter") {
      const f = found[at];
      // A scanner is quicker than the search: then the label's own page looks it up.
      if (f && words === labelCode(text)) choose(f);
      else if (text.trim()) {
        setOpen(false);
        void go(`/l/${encodeURIComponent(labelCode(text))}`);
        setText("");
      }
    } else return;
    e.preventDefault();
  };
  const shown = open && words !== "";
  return (
    <div className="find position-relative d-print-none">
      <Form.Control
        type="search"
        placeholder="Find ( / )"
        aria-label="Find by name, label or serial"
        role="combobox"
        aria-expanded={shown}
        aria-controls={`${id}-list`}
        aria-activedescendant={shown && found[at] ? `${id}-${at}` : undefined}
        maxLength={200}
        value={text}
        onChange={(e) => {
          setText(e.target.value === "/" ? "" : e.target.value); // the key that leads here is no name
          setAt(0);
          setOpen(true);
        }}
        onKeyDown={onKey}
        onBlur={() => setTimeout(() => setOpen(false), 150)}
      />
      <ListGroup
        as="ul"
        id={`${id}-list`}
        className="position-absolute end-0 z-3 bg-body border border-2 border-primary"
        style={{ width: "min(420px, 92vw)" }}
        role="listbox"
        aria-label="Found"
        hidden={!shown}
      >
        {found.map((f, i) => (
          <ListGroup.Item
            as="li"
            active={i === at}
            key={`${f.kind}-${f.id}`}
            id={`${id}-${i}`}
            role="option"
            aria-selected={i === at}
            className="tap px-2"
            onMouseDown={() => choose(f)}
          >
            <strong>{f.name}</strong> <span className="soft">{f.detail}</span>
          </ListGroup.Item>
        ))}
        {q.isSuccess && found.length === 0 && (
          <ListGroup.Item as="li" className="px-2" role="option" aria-selected={false} aria-disabled="true">
            Nothing has “{words}” in its name or number.
          </ListGroup.Item>
        )}
      </ListGroup>
    </div>
  );
}
