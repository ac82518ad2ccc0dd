import { Hoist, HoistMini } from "../parts/Hoist";
import { Rope } from "../drawings/Rope";
import { VerdictMark } from "../parts/Flag";
import { Piece } from "./Piece";
import { colours, findings, verdicts } from "./samples";

/** How a verdict is shown, wherever there is one. */
export function SignPieces() {
  return (
    <>
      <Piece name="Verdicts">
        <div className="d-flex flex-wrap gap-2 gap-4">
          {verdicts.map((v) => (
            <VerdictMark key={v} verdict={v} big />
          ))}
          {verdicts.map((v) => (
            <VerdictMark key={v} verdict={v} />
          ))}
        </div>
      </Piece>
      <Piece name="Colours of the theme">
        <div className="d-flex flex-wrap gap-2">
          {colours.map((x) => (
            <div key={x}>
              <div
                style={{
                  width: 84,
                  height: 34,
                  background: `var(--${x})`,
                  border: "1px solid var(--rule)",
                }}
              />
              <span className="fig">{x}</span>
            </div>
          ))}
        </div>
      </Piece>
      <Piece name="Hoist">
        <Hoist findings={findings} aircraft="none" />
        <p className="mt-3 mb-0">
          Small: <HoistMini findings={findings} /> and empty: <HoistMini findings={[]} />
        </p>
      </Piece>
      <Piece name="Judgement of an entry">
        <div className="vstack gap-3">
          {verdicts.map((v) => (
            <div key={v} className={`judged ${v}`}>
              <VerdictMark verdict={v} /> Bus resistance of 60 Ω.
              <div className="soft">Against: stop under 57, stop over 63</div>
            </div>
          ))}
          <div className="judged none">The verdict appears as soon as there is an entry.</div>
        </div>
      </Piece>
      <Piece name="What is left of a life">
        {(
          [
            [0.2, "clear"],
            [0.93, "watch"],
            [1, "stop"],
          ] as const
        ).map(([used, v]) => (
          <div key={v} className="mb-2">
            <Rope used={used} verdict={v} label={`${used * 100} % used`} /> {(used * 24).toFixed(1)} of 24
            hours used
          </div>
        ))}
      </Piece>
    </>
  );
}
