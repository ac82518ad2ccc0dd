import { useMay } from "../parts/session";
import { KindsView } from "../parts/KindsView";
import { useNozzles } from "./api";
import { NozzleDialog } from "./NozzleDialog";

/** The kinds of nozzle that spray plans choose from, with what the maker's table says of them. */
export function NozzlesView() {
  return (
    <KindsView
      title="Nozzles"
      one="nozzle"
      heading="Kinds of nozzle"
      intro="Enter flow and pressure as the maker's table gives them. A plan tells when its flow is outside of them. The kinds that came with the program are made up: put your own in their place."
      query={useNozzles()}
      kinds={(d) => d.nozzles}
      may={useMay()("technician", "chief")}
      columns={[
        { head: "Flow, L/min", cell: (n) => `${n.least_l_min} to ${n.most_l_min}` },
        { head: "Pressure, bar", cell: (n) => `${n.least_bar} to ${n.most_bar}` },
        { head: "Droplets", cell: (n) => n.droplets },
      ]}
      dialog={(nozzle, close) => <NozzleDialog nozzle={nozzle} onClose={close} />}
    />
  );
}
