import { bringReadings } from "./api";
import { BringIn } from "../parts/BringIn";

/** Brings in the file of a charger; every line is accounted for. */
export function ImportReadings() {
  return (
    <BringIn
      label="Bring in the file of a charger"
      writes={["packs", "pack_readings", "pack_outlooks"]}
      field="File of a charger"
      what="readings"
      accept=".csv,text/csv"
      take={bringReadings}
    />
  );
}
