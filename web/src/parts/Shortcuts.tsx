import { Table } from "react-bootstrap";
import { useEffect, useRef } from "react";
import { useNavigate } from "react-router";
import { places } from "./places";

const others: [string, string][] = [
  ["?", "How it is done here, and this sheet"],
  ["/", "Find anything by name, label or serial; a label scanner types here"],
  ["Enter", "Goes on: in order, next item; from cell to cell; saves a form; signs where a PIN stands"],
  ["← →", "Walkround: item before, item after"],
  ["Esc", "Close a dialog"],
];

/** Whether a key press is meant for a field and not for the application. */
export function typing(e: KeyboardEvent): boolean {
  const t = e.target as HTMLElement;
  return (
    e.ctrlKey ||
    e.metaKey ||
    e.altKey ||
    t.isContentEditable ||
    ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName)
  );
}

/** "g" and then a letter goes to a view; "?" opens the sheet; "/" finds. */
export function useShortcuts(openHelp: () => void) {
  const go = useNavigate();
  const armed = useRef(0); // outlives a new drawing between the two keys
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (typing(e) || document.querySelector(".modal.show")) return;
      if (e.key === "?") {
        openHelp();
      } else if (e.key === "/") {
        const find = document.querySelector<HTMLInputElement>("input[type=search]");
        if (find) {
          e.preventDefault();
          find.focus();
        }
      } else if (e.key === "g") {
        armed.current = Date.now();
      } else if (Date.now() - armed.current < 1500) {
        const p = places.find((x) => x.key === e.key);
        armed.current = 0;
        if (p) void go(p.path);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [go, openHelp]);
}

/** The keys, and what each does. */
export function Keys() {
  return (
    <Table>
      <thead>
        <tr>
          <th>Key</th>
          <th>What it does</th>
        </tr>
      </thead>
      <tbody>
        {places.map((p) => (
          <tr key={p.key}>
            <td className="fig">g {p.key}</td>
            <td>Go to {p.name}</td>
          </tr>
        ))}
        {others.map(([k, what]) => (
          <tr key={k}>
            <td className="fig">{k}</td>
            <td>{what}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
