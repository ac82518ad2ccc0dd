import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { readDraft, writeDraft } from "../../parts/drafts";
import { serverNow } from "../../parts/time";
import { blankWind, type Kept } from "./model";

type Answer = Schemas["GateAnswer"] | undefined;

const shortAim = (aim: string) => aim.slice(0, 120);

/** What was chosen for the next flight of an aircraft; it outlives a reload and the way to a remedy and back. */
export function useKept(aircraft: string) {
  const [params] = useSearchParams();
  const key = `gate-${aircraft}`;
  const [kept, setKept] = useState<Kept>(() => {
    const draft = readDraft<Kept>(key);
    const packs = params.get("packs")?.split(",").filter(Boolean);
    return {
      purpose: "",
      ...draft,
      job: params.get("job") ?? draft?.job ?? null,
      packs: packs ?? draft?.packs ?? null,
      wind: { ...blankWind, ...draft?.wind },
    };
  });
  const change = (part: Partial<Kept>) =>
    setKept((k) => {
      const next = { ...k, ...part };
      writeDraft(key, next);
      return next;
    });
  return { kept, change, setKept };
}

/** Proposes, once, what the gate knows: the job whose window it is, its aim, the packs of the last walk. */
export function useProposals(kept: Kept, setKept: (f: (k: Kept) => Kept) => void, answer: Answer) {
  const suggested = answer?.suggested_packs;
  const nearest = answer?.jobs.find(
    (j) => Date.parse(j.from) <= serverNow() && serverNow() < Date.parse(j.to),
  );
  const aim = answer?.jobs.find((j) => j.id === kept.job)?.aim;
  const [aimed, setAimed] = useState(false);
  useEffect(() => {
    // A job that was chosen elsewhere brings its aim along.
    if (aimed || !aim) return;
    setAimed(true);
    setKept((k) => (k.purpose ? k : { ...k, purpose: shortAim(aim) }));
  }, [aim, aimed, setKept]);
  useEffect(() => {
    if (kept.job === null && nearest)
      setKept((k) => ({ ...k, job: nearest.id, purpose: k.purpose || shortAim(nearest.aim) }));
  }, [kept.job, nearest, setKept]);
  const unasked = kept.packs === null;
  useEffect(() => {
    if (unasked && suggested?.length) setKept((k) => ({ ...k, packs: suggested }));
  }, [unasked, suggested, setKept]);
}
