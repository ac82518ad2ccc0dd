import { useEffect, useState } from "react";
import { Button } from "react-bootstrap";
import { openSound, signal, soundOpen } from "../parts/signal";

/** Whether calls will be heard and the screen stays on; a press makes sound possible where the browser asks for one. */
export function Sound({ awake }: { awake: boolean }) {
  const [open, setOpen] = useState(soundOpen);
  useEffect(() => {
    // Any press on this page will do.
    const wake = () => void openSound().then(setOpen);
    window.addEventListener("pointerup", wake);
    return () => window.removeEventListener("pointerup", wake);
  }, []);
  return (
    <p className="soft d-flex flex-wrap align-items-center gap-2 mb-2">
      {open ? "Calls are heard and felt." : "Calls are silent until something is pressed here."}{" "}
      {awake ? "The screen stays on." : "Set this device to keep its screen on: the browser does not."}{" "}
      <Button variant="outline-primary" onClick={() => void openSound().then(() => signal(false))}>
        Hear a call
      </Button>
    </p>
  );
}
