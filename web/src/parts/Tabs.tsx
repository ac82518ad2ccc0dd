import { useAddress } from "./address";

export interface TabsProps {
  label: string;
  tabs: { key: string; name: string; count?: number }[];
  /** The parameter of the address that holds the chosen one; the first is the default. */
  param?: string;
}

/** Leaves of a view; which one is open stands in the address. */
export function Tabs({ label, tabs, param = "tab" }: TabsProps) {
  const [params, set] = useAddress();
  const now = params.get(param) ?? tabs[0]?.key;
  return (
    <div className="leaves no-print" role="group" aria-label={label}>
      {tabs.map((t) => (
        <button
          key={t.key}
          type="button"
          aria-pressed={t.key === now}
          onClick={() => set({ [param]: t.key === tabs[0]?.key ? "" : t.key })}
        >
          {t.name} {t.count !== undefined && <span className="fig">{t.count}</span>}
        </button>
      ))}
    </div>
  );
}
