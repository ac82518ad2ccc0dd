import { z } from "zod";
import type { Schemas } from "../api/client";

type Feature = Pick<Schemas["SiteFeature"]["feature"], "id" | "kind" | "name" | "main">;

/** The take-off places among what is on a map, the main one first, then by name. */
export function takeOffPlaces(
  features: { feature: Feature }[],
): { id: string; name: string; main: boolean }[] {
  return features
    .map((f) => f.feature)
    .filter((f) => f.kind === "take-off")
    .map((f) => ({ id: f.id, name: f.name || "Take-off place", main: f.main === true }))
    .sort((a, b) => Number(b.main) - Number(a.main) || a.name.localeCompare(b.name));
}

export const datumWords: Record<Exclude<Schemas["Datum"], "">, string> = {
  "take-off": "above take-off",
  ground: "above the ground",
  sea: "above sea level",
};

/** What the height of a route is counted from when nobody chose: a sprayer follows the crop. */
export function usualDatum(work: Schemas["Job"]["work"]): Exclude<Schemas["Datum"], ""> {
  return work === "spraying" ? "ground" : "take-off";
}

/** The datum in words, chosen or usual. */
export function datumOf(datum: Schemas["Datum"], work: Schemas["Job"]["work"]): string {
  return datumWords[datum || usualDatum(work)];
}

/** What an aircraft does when the link is lost, in words. */
export const lostLinkWords: Record<Schemas["LostLink"], string> = {
  "": "not read",
  return: "returns",
  hover: "hovers or circles where it is",
  land: "lands where it is",
  continue: "flies the mission to its end",
};

/** Why a decision is taken back. */
export const withdrawal = z.object({
  reason: z.string().trim().min(3, "Say why it no longer holds.").max(400, "At most 400 characters."),
});

/** Somebody's words as the end of a sentence: with one full stop, or the mark they chose. */
export function ended(words: string): string {
  const said = words.trim();
  return /[.!?]$/.test(said) ? said : `${said}.`;
}

/** A day before a moment, by the full hour: the same for all who ask within it. */
export const dayAgo = (now: number) => new Date((Math.floor(now / 3_600_000) - 24) * 3_600_000).toISOString();
