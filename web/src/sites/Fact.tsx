import { Explained } from "../parts/Explained";

/** A figure with its name, whose words of the trade open. */
export function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt className="fw-normal soft">
        <Explained text={name} />
      </dt>
      <dd className="fig m-0 fw-semibold">{children}</dd>
    </div>
  );
}

export const num = (v: number | null | undefined, unit: string, decimals = 0) =>
  v == null ? "not known" : `${v.toFixed(decimals)} ${unit}`;
