import { useEffect, useState } from "react";
import { newId } from "../api/client";
import { blank, type Feature, type Kind, least, type Shape } from "./kinds";
import type { Place } from "./shapes";

/** What is being drawn: a feature, a hole of one, or a line whose heights are asked. */
export interface Draft {
  kind: Kind;
  shape: Shape;
  places: Place[];
  hole?: boolean;
  look?: boolean;
}

/** Shapes of one feature as they were changed on the map, newest last; nothing is saved before the form is. */
interface Reshaped {
  id: string;
  steps: Pick<Feature, "places" | "holes">[];
}

/** Drawing on the map of a site: what is drawn, reshaped and selected, each step to be taken back. */
export function useDrawing(features: Feature[]) {
  const [selected, setSelected] = useState("");
  const [draft, setDraft] = useState<Draft>();
  const [fresh, setFresh] = useState<Feature>();
  const [line, setLine] = useState<Place[]>([]);
  const [reshaped, setReshaped] = useState<Reshaped>();

  const as = (f: Feature): Feature =>
    reshaped?.id === f.id ? { ...f, ...reshaped.steps[reshaped.steps.length - 1] } : f;
  const one = features.find((f) => f.id === selected);
  const now = fresh ? as(fresh) : one && as(one);

  const reshape = (places: Place[], holes: Place[][]) => {
    if (!now) return;
    const before = reshaped?.id === now.id ? reshaped.steps : [];
    setReshaped({ id: now.id, steps: [...before, { places, holes }] });
  };
  const undo = () =>
    setReshaped((r) => (r && r.steps.length > 1 ? { ...r, steps: r.steps.slice(0, -1) } : undefined));
  const finish = (d: Draft) => {
    if (d.places.length < least[d.shape]) return;
    setDraft(undefined);
    if (d.look) return setLine(d.places);
    if (d.hole) return now && reshape(now.places, [...(now.holes ?? []), d.places]);
    setFresh(blank(newId(), d.kind, d.shape, d.places));
    setSelected("");
  };
  const place = (p: Place) => {
    if (!draft) return;
    const next = { ...draft, places: [...draft.places, p] };
    if (draft.shape === "point") finish(next);
    else setDraft(next);
  };
  useEffect(() => {
    if (!draft) return;
    const key = (e: KeyboardEvent) => {
      if (e.key === "Escape") setDraft(undefined);
      if (e.key === "Enter") {
        e.preventDefault(); // the press must not reach the button that comes in place of this one
        finish(draft);
      }
      if (e.key === "Backspace") {
        e.preventDefault();
        setDraft({ ...draft, places: draft.places.slice(0, -1) });
      }
    };
    window.addEventListener("keydown", key);
    return () => window.removeEventListener("keydown", key);
  });
  /** Lets go of what was drawn or changed. */
  const done = () => {
    setFresh(undefined);
    setSelected("");
    setReshaped(undefined);
  };
  const select = (id: string) => {
    setSelected(id);
    setFresh(undefined);
  };
  return {
    ...{ selected: fresh?.id ?? selected, fresh: fresh && as(fresh), now, draft, line },
    shown: [...features.map(as), ...(fresh ? [as(fresh)] : [])],
    changed: reshaped !== undefined && now?.id === reshaped.id,
    ...{ setDraft, setLine, reshape, undo, finish, place, done, select },
  };
}

export type Drawing = ReturnType<typeof useDrawing>;
