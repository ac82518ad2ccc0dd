import { useState } from "react";
import { NumberField } from "../../parts/Field";
import { useUnits } from "../../parts/units";
import { typedNumber } from "../../parts/typed";

interface OnBoardProps {
  onMore: (kg: { payload_kg: number; attached_kg: number }) => void;
}

/** What else is on board today: it moves the centre of gravity at once. */
export function OnBoard({ onMore }: OnBoardProps) {
  const u = useUnits();
  const [typed, setTyped] = useState({ payload_kg: "", attached_kg: "" });
  const box = typedNumber(0, u.value("mass", 200), u.label("mass"));
  const read = (text: string) => box.safeParse(text);
  const put = (name: keyof typeof typed, text: string) => {
    const now = { ...typed, [name]: text };
    setTyped(now);
    const [payload, attached] = [read(now.payload_kg), read(now.attached_kg)];
    if (payload.success && attached.success)
      onMore({
        payload_kg: u.toBase("mass", payload.data ?? 0),
        attached_kg: u.toBase("mass", attached.data ?? 0),
      });
  };
  const field = (name: keyof typeof typed, label: string) => {
    const r = read(typed[name]);
    return (
      <NumberField
        label={label}
        unit={u.label("mass")}
        value={typed[name]}
        wrong={r.success ? undefined : r.error.issues[0]?.message}
        onChange={(e) => put(name, e.target.value)}
      />
    );
  };
  return (
    <div className="row row-cols-2 gx-3">
      {field("payload_kg", "Payload today")}
      {field("attached_kg", "Attached beside it")}
    </div>
  );
}
