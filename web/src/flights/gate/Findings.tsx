import { GateEnergy } from "../energy/GateEnergy";
import { Flag, VerdictMark, words } from "../../parts/Flag";
import { Hoist, Notices } from "../../parts/Hoist";
import { Sheet } from "../../parts/Sheet";
import type { GateProps } from "./GateView";
import { byLifter, lifterWords } from "./model";
import { heldWords } from "./rules";

/** Brings an input of this page into sight, ready to type. */
function jump(id: string) {
  return () => {
    const part = document.getElementById(id);
    part?.scrollIntoView({ block: "center" });
    part?.querySelector<HTMLElement>("input, button, select")?.focus({ preventScroll: true });
  };
}

/** Remedies that are on this page. */
export const atHand: Partial<Record<string, () => void>> = {
  "enter-wind": jump("gate-wind"),
  jobs: jump("gate-job"),
  "choose-packs": jump("gate-packs"),
};

/** The way back to a gate. */
export const gateBack = (a: { id: string; name: string }) => ({
  to: `/gate/${a.id}`,
  name: `the gate of ${a.name}`,
});

/** The verdict and what stands against the flight, by who can lift it. */
export function Findings({ g, settled }: Pick<GateProps, "g" | "settled">) {
  const o = g.output;
  const groups = byLifter(o.findings);
  return (
    <Sheet>
      <div className="d-flex justify-content-between align-items-center flex-wrap gap-2" aria-live="polite">
        <VerdictMark verdict={o.verdict} big />
        <span className="soft">{settled ? `Rules: ${o.rules}` : "Asking again with what was chosen…"}</span>
      </div>
      <div aria-busy={!settled}>
        {o.findings.length === 0 && <p className="mt-2 mb-0">Nothing stands against this flight.</p>}
        {groups.map(({ lifter, findings }) => (
          <section key={lifter} className="mt-3">
            <h3>
              <Flag verdict={findings[0]!.verdict} size={14} />
              <span className="visually-hidden">{words[findings[0]!.verdict]}: </span>
              {lifterWords[lifter]}
            </h3>
            <Hoist findings={findings} aircraft={g.aircraft.id} here={atHand} back={gateBack(g.aircraft)} />
          </section>
        ))}
        <GateEnergy e={o.energy} />
        <details className="mt-2">
          <summary className="tap py-2">Held and found in order: {o.checked.length}</summary>
          <p className="soft mb-0">{o.checked.map((r) => heldWords[r]).join(", ") || "nothing yet"}.</p>
        </details>
        <Notices notices={o.notices} />
      </div>
    </Sheet>
  );
}
