import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect, useMemo, useRef, useState } from "react";
import { readDraft, writeDraft } from "../parts/drafts";
import { useDraftForm } from "../parts/form";
import { useUnits } from "../parts/units";
import type { Plan } from "./api";
import { follow, typedWish, wishForm, type Typed } from "./wish";

/**
 * The boxes of a plan. What somebody else kept meanwhile comes into every one that was not
 * touched here, whether this page was open then or not.
 */
export function useWishForm(p: Plan) {
  const u = useUnits();
  const schema = useMemo(() => wishForm(u, p.wish), [u, p.wish]);
  const now = useMemo(() => typedWish(p.wish, u), [p.wish, u]);
  const key = `spray-${p.job_id}-${p.aircraft_id}`;
  const base = `${key}-of`; // what the draft was typed over
  useState(() => {
    const [mine, was] = [readDraft<Typed>(key), readDraft<Typed>(base)];
    if (mine && was) writeDraft(key, follow({ ...now, ...mine }, { ...now, ...was }, now));
    writeDraft(base, now);
  });
  const form = useDraftForm<Typed, ReturnType<typeof schema.parse>>(key, now, [], zodResolver(schema));
  const kept = useRef(now);
  const { getValues, reset } = form;
  useEffect(() => {
    if (JSON.stringify(kept.current) !== JSON.stringify(now)) {
      writeDraft(base, now);
      reset(follow(getValues(), kept.current, now));
    }
    kept.current = now;
  }, [base, getValues, reset, now]);
  return { form, schema, now };
}
