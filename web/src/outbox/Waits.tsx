import { Notice } from "../parts/Notice";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { Flag } from "../parts/Flag";
import { useLink } from "../api/link";
import { serverIso, useNow, useZone } from "../parts/time";
import { saidOf } from "./kinds";
import { onItsWay, type About, type Press } from "./model";
import { drop, put } from "./store";

/** What was pressed last and is not with the server yet, in one line: "Landed 18:57:08, waiting for network". */
function WaitLine({ waiting, words }: { waiting: Press[]; words?: string }) {
  const z = useZone();
  const { up } = useLink();
  useNow();
  const last = waiting.at(-1);
  if (!last || (up && Date.now() - waiting[0]!.at < onItsWay)) return null;
  return (
    <Notice role="status" className="py-1 fw-semibold">
      <div>
        {words ?? saidOf(last)} <span className="fig">{z.second(serverIso(last.at))}</span>, waiting for{" "}
        {up ? "the server" : "network"}
        {waiting.length > 1 && `, with ${waiting.length - 1} before it`}
      </div>
    </Notice>
  );
}

/** What somebody else pressed on this device before; it has not happened for anybody yet. */
function OthersLine({ others }: { others: Press[] }) {
  const z = useZone();
  const last = others.at(-1);
  if (!last) return null;
  return (
    <Notice role="status" className="py-1 fw-semibold">
      <div>
        {last.personName} pressed “{saidOf(last)}” here at{" "}
        <span className="fig">{z.second(serverIso(last.at))}</span>
        {others.length > 1 && ` and ${others.length - 1} before it`}; it is handed over when {last.personName}{" "}
        signs in on this device.
      </div>
    </Notice>
  );
}

export interface WaitsProps {
  about: About;
  /** What to call the newest press that waits. */
  words?: string;
}

/** All that this device keeps about the thing of a page and the server does not have: refusals first. */
export function Waits({ about, words }: WaitsProps) {
  return (
    <>
      <Refused refused={about.refused} />
      <OthersLine others={about.others} />
      <WaitLine waiting={about.waiting} words={words} />
    </>
  );
}

/** Presses that the server did not take, each with its sentence, at the place where they were made. */
export function Refused({ refused }: { refused: Press[] }) {
  const z = useZone();
  return refused.map((p) => (
    <Notice key={p.id} verdict="stop" role="alert" className="mb-2">
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
    </Notice>
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
