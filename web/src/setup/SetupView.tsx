import { ListGroup } from "react-bootstrap";
import { Link } from "react-router";
import { useMay } from "../parts/session";
import { useAddress } from "../parts/address";
import { Sheet, ViewHead } from "../parts/Sheet";
import { Tabs } from "../parts/Tabs";
import { CrewForm } from "./CrewForm";
import { Outside } from "./Outside";
import { Own } from "../people/Own";
import { TypesTable } from "./TypesTable";

/** What a crew sets, apart from what somebody who builds on it looks at. */
export function SetupView() {
  const chief = useMay()();
  const [params] = useAddress();
  const tab = params.get("tab") ?? "types";
  return (
    <>
      <ViewHead title="Set-up" />
      <Tabs
        label="Parts of the set-up"
        tabs={[
          { key: "types", name: "Types" },
          { key: "crew", name: "Crew and you" },
          { key: "lists", name: "Practices and lists" },
          { key: "outside", name: "Devices and services" },
          { key: "build", name: "For who builds on it" },
        ]}
      />
      {tab === "types" && <TypesTable />}
      {tab === "crew" && (
        <div className="two">
          {chief && <CrewForm />}
          <Own />
        </div>
      )}
      {tab === "lists" && <Lists />}
      {tab === "outside" && <Outside />}
      {tab === "build" && (
        <Sheet title="For who builds on it">
          <p>
            <a href="/api/v1">The interface for other programs</a>: every operation with its fields, also as a
            file for tools.
          </p>
          <p className="mb-0">
            <Link to="/parts">The pieces of this program</Link>: each drawing and field in every state.
          </p>
        </Sheet>
      )}
    </>
  );
}

const lists: [string, string, string][] = [
  ["/crew", "People", "who is in the crew, their roles, certificates and passwords"],
  ["/practices", "Practices", "where practitioners differ, the way this crew has chosen, with the reason"],
  ["/rules", "Rules", "which law is flown under, what the rules ask, the crew's own"],
  ["/cameras", "Cameras", "sensors and lenses for surveys and inspections"],
  ["/canopies", "Survey heights", "how high what grows is taken to be"],
  ["/nozzles", "Nozzles", "flow and droplets by pressure"],
  ["/labels", "Labels to print", "square codes for aircraft, packs and gear"],
];

function Lists() {
  return (
    <Sheet title="Practices and lists">
      <ListGroup as="ul" variant="flush">
        {lists.map(([to, name, says]) => (
          <ListGroup.Item as="li" key={to} className="py-0">
            <Link className="d-block tap py-2" to={to}>
              <strong>{name}</strong> <span className="soft">{says}</span>
            </Link>
          </ListGroup.Item>
        ))}
      </ListGroup>
    </Sheet>
  );
}
