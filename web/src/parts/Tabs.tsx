import { useAddress } from "./address";
import { Leaves, type LeavesProps } from "./Leaves";

export interface TabsProps {
  label: string;
  tabs: LeavesProps["leaves"];
  /** The parameter of the address that holds the chosen one; the first is the default. */
  param?: string;
}

/** Leaves of a view; which one is open stands in the address. */
export function Tabs({ label, tabs, param = "tab" }: TabsProps) {
  const [params, set] = useAddress();
  const first = tabs[0]?.key ?? "";
  return (
    <Leaves
      label={label}
      leaves={tabs}
      now={params.get(param) ?? first}
      onChoose={(key) => set({ [param]: key === first ? "" : key })}
    />
  );
}
