import { Explained } from "../parts/Explained";

export function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt>
        <Explained text={name} />
      </dt>
      <dd className="fig">{children}</dd>
    </div>
  );
}

export const num = (v: number | null | undefined, unit: string, decimals = 0) =>
  v == null ? "not known" : `${v.toFixed(decimals)} ${unit}`;
