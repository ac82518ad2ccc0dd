import { tiles } from "../parts/columns";
import { Button, Offcanvas } from "react-bootstrap";
import { NavLink } from "react-router";
import { Find } from "../find/Find";
import { places } from "../parts/places";
import { useSession } from "../parts/session";
import { SignOut } from "./SignOut";

export interface MoreProps {
  open: boolean;
  onClose: () => void;
  night: boolean;
  onNight: () => void;
  onHelp: () => void;
}

/** Everything that has no room on a phone: find, all views, night, sign out. */
export function More({ open, onClose, night, onNight, onHelp }: MoreProps) {
  const { person, crew } = useSession();
  return (
    <Offcanvas show={open} onHide={onClose} placement="bottom" className="h-auto mh-100" aria-label="More">
      <Offcanvas.Body>
        <div className="d-flex justify-content-between align-items-baseline gap-2 mb-2">
          <strong>{person.name}</strong>
          <span className="soft">{crew.name}</span>
        </div>
        <Find />
        <nav aria-label="All views" className="tiles my-3" style={tiles(140)}>
          {places.map((p) => (
            <NavLink
              key={p.path}
              to={p.path}
              end={p.path === "/"}
              onClick={onClose}
              className={({ isActive }) =>
                `btn btn-outline-primary justify-content-start ${isActive ? "active" : ""}`
              }
            >
              {p.name}
            </NavLink>
          ))}
        </nav>
        <div className="d-flex gap-2 flex-wrap">
          <Button variant="outline-primary" aria-pressed={night} onClick={onNight}>
            {night ? "Daylight" : "Night"}
          </Button>
          <Button variant="outline-primary" onClick={onHelp}>
            Help
          </Button>
          <SignOut />
          <Button variant="outline-primary" className="ms-auto" onClick={onClose}>
            Close
          </Button>
        </div>
      </Offcanvas.Body>
    </Offcanvas>
  );
}
