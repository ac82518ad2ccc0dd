import { useState } from "react";
import { Button } from "react-bootstrap";
import { Flag } from "../parts/Flag";
import { useZone } from "../parts/time";
import { serverIso } from "../parts/time";
import { saidOf } from "./kinds";
import type { Press } from "./model";
import { drop, put } from "./store";

/** What was pressed last and is not with the server yet, in one line: "Landed 18:57:08, waiting for network". */
export function WaitLine({ waiting, words }: { waiting: Press[]; words?: string }) {
  const z = useZone();
  const last = waiting.at(-1);
  if (!last) return null;
  return (
    <p className="wait-line" role="status">
      {words ?? saidOf(last)} <span className="fig">{z.second(serverIso(last.at))}</span>, waiting for network
      {waiting.length > 1 && `, with ${waiting.length - 1} before it`}
    </p>
  );
}

/** Presses that the server did not take, each with its sentence, at the place where they were made. */
export function Refused({ refused }: { refused: Press[] }) {
  const z = useZone();
  return refused.map((p) => (
    <div key={p.id} className="notice bad mb-2" role="alert">
      <Flag verdict="stop" />
      <div>
        <strong>
          {saidOf(p)}, <span className="fig">{z.second(serverIso(p.at))}</span>: {p.refused?.title}
        </strong>
        <p>{p.refused?.sentence}</p>
        <div className="d-flex gap-2 flex-wrap mt-2">
          <Button variant="outline-primary" onClick={() => void put({ ...p, refused: undefined })}>
            Send again
          </Button>
          <SetAside p={p} />
        </div>
      </div>
    </div>
  ));
}

/** Gives a refused press up, asked twice: what it said is lost with it. */
function SetAside({ p }: { p: Press }) {
  const [sure, setSure] = useState(false);
  return (
    <Button
      variant={sure ? "danger" : "outline-primary"}
      onClick={() => (sure ? void drop(p.id) : setSure(true))}
    >
      {sure ? "Press again to give it up" : "Give it up"}
    </Button>
  );
}
