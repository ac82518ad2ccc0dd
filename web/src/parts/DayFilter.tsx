import { useState } from "react";
import { DateField } from "./DateField";
import { isDay } from "./when";

export interface DayFilterProps {
  label: string;
  /** The day that filters; "" is none. */
  day: string;
  onChange: (day: string) => void;
}

/** A day by which a list is filtered: it counts when it is a whole day, or gone. */
export function DayFilter({ label, day, onChange }: DayFilterProps) {
  const [text, setText] = useState(day);
  return (
    <div style={{ width: 165 }}>
      <DateField
        bare
        label={label}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          if (e.target.value === "" || isDay(e.target.value)) onChange(e.target.value);
        }}
      />
    </div>
  );
}
