import type { Schemas } from "../api/client";
import { counted } from "../parts/number";
import type { Outcome } from "./api";

type Pack = Schemas["Pack"];

/** States to which several packs go with one press, in the order of the day. */
export const together: Pack["state"][] = ["charging", "charged", "flown", "storage"];

/** States that all of the chosen may go to, of those that several may. */
export function commonMoves(chosen: Pack[]): Pack["state"][] {
  return chosen.length === 0 ? [] : together.filter((s) => chosen.every((p) => p.moves.includes(s)));
}

/** What became of several: how many were moved, and the sentence of each that was not. */
export function summary(all: Outcome[]): { moved: Outcome[]; words: string; refused: string[] } {
  const moved = all.filter((o) => !o.sentence);
  return {
    moved,
    words: `${counted(moved.length, "pack")} moved: ${moved.map((o) => o.label).join(", ")}`,
    refused: all.flatMap((o) => (o.sentence ? [o.sentence] : [])),
  };
}

/** The order in which packs stand in their group. */
export type PackOrder = "label" | "level" | "health" | "spread";

export const orderWords: Record<PackOrder, string> = {
  label: "by label",
  level: "fullest first",
  health: "weakest first",
  spread: "widest spread first",
};

/** Packs in an order; what is not known comes last, then by label. */
export function sorted(packs: Pack[], by: PackOrder): Pack[] {
  const key = (p: Pack): number | undefined => {
    switch (by) {
      case "label":
        return 0;
      case "level":
        return p.percent == null ? undefined : -p.percent;
      case "health":
        return p.health_percent ?? undefined;
      case "spread":
        return p.spread_mv == null ? undefined : -p.spread_mv;
    }
  };
  return [...packs].sort((a, b) => {
    const [x, y] = [key(a), key(b)];
    if (x !== y) return x === undefined ? 1 : y === undefined ? -1 : x - y;
    return a.label.localeCompare(b.label, "en", { numeric: true });
  });
}

const inState: Partial<Record<Pack["state"], string>> = {
  storage: "at storage level",
  charging: "still on charge",
  flown: "flown and not charged yet",
  hot: "still hot",
  quarantine: "in quarantine",
};

/** Which pack of a choice has a label; a sentence where it is the wrong one for it. */
export function packInHand(
  rack: Pack[],
  choice: Pack[],
  type: string,
  code: string,
): { id: string } | { sentence: string } {
  const same = (a: string) => a.trim().toLowerCase() === code.trim().toLowerCase();
  const p = rack.find((x) => same(x.serial) || same(x.label));
  if (!p) return { sentence: `No pack of this crew carries the label ${code}.` };
  if (choice.some((x) => x.id === p.id)) return { id: p.id };
  if (!p.fits.includes(type)) return { sentence: `${p.label} does not fit ${type}: put it back.` };
  if (p.fitted_to) return { sentence: `${p.label} is fitted to ${p.fitted_to}.` };
  return { sentence: `${p.label} is ${inState[p.state] ?? p.state}: it does not fly now. Take another one.` };
}
