import { Button } from "react-bootstrap";
import { DayFilter } from "../parts/DayFilter";
import { dayAfter } from "../parts/when";

/** The day of flying: typed, or a day back and forth. */
export function DayStep({ day, onChange }: { day: string; onChange: (day: string) => void }) {
  return (
    <div className="d-flex flex-wrap gap-2 align-items-end d-print-none">
      <Button variant="outline-primary" aria-label="Day before" onClick={() => onChange(dayAfter(day, -1))}>
        ←
      </Button>
      <DayFilter key={day} label="Day of flying" day={day} onChange={(d) => d && onChange(d)} />
      <Button variant="outline-primary" aria-label="Day after" onClick={() => onChange(dayAfter(day, 1))}>
        →
      </Button>
    </div>
  );
}
