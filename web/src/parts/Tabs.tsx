import { useEffect } from "react";
import { useAddress } from "./address";
import { Leaves, type LeavesProps } from "./Leaves";

export interface TabsProps {
  label: string;
  tabs: LeavesProps["leaves"];
  /** The parameter of the address that holds the chosen one; the first is the default. */
  param?: string;
}

/** Leaves of a view; which one is open stands in the address. An address that names none of them opens the first. */
export function Tabs({ label, tabs, param = "tab" }: TabsProps) {
  const [params, set] = useAddress();
  const first = tabs[0]?.key ?? "";
  const asked = params.get(param);
  const strange = asked !== null && !tabs.some((t) => t.key === asked);
  useEffect(() => {
    if (strange) set({ [param]: "" });
  }, [strange, set, param]);
  return (
    <Leaves
      label={label}
      leaves={tabs}
      now={strange ? first : (asked ?? first)}
      onChoose={(key) => set({ [param]: key === first ? "" : key })}
    />
  );
}
