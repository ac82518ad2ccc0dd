import { useEffect, useRef, useState } from "react";
import { Button } from "react-bootstrap";
import { Dialog } from "./Dialog";
import { TextField } from "./Field";
import { labelCode } from "./label";

/** How often a picture of the camera is read, in ms. */
const every = 200;

/** The width to which a larger picture is brought before it is read, px. */
const widest = 800;

export interface ScanKeyProps {
  label: string;
  className?: string;
  /** Takes the code of a label; a sentence where it is the wrong one. */
  onCode: (code: string) => string | undefined;
}

/** Reads the square code of a label with the camera of this device, or its number from the keys. */
export function ScanKey({ label, className, onCode }: ScanKeyProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button type="button" variant="outline-primary" className={className} onClick={() => setOpen(true)}>
        {label}
      </Button>
      {open && <Scan label={label} onCode={onCode} onClose={() => setOpen(false)} />}
    </>
  );
}

function Scan({ label, onCode, onClose }: ScanKeyProps & { onClose: () => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const [said, setSaid] = useState("");
  const [blind, setBlind] = useState("");
  const [typed, setTyped] = useState("");
  const take = useRef<(text: string) => void>(() => undefined);
  useEffect(() => {
    take.current = (text) => {
      const wrong = onCode(labelCode(text));
      if (wrong) setSaid(wrong);
      else onClose();
    };
  });
  useEffect(() => {
    let stream: MediaStream | undefined;
    let timer: ReturnType<typeof setInterval> | undefined;
    let gone = false;
    let last = "";
    const look = async () => {
      const { readSquare } = await import("./squarecode");
      stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: "environment" } });
      const v = video.current;
      if (gone || !v) return stop();
      v.srcObject = stream;
      await v.play();
      const canvas = document.createElement("canvas");
      const pen = canvas.getContext("2d", { willReadFrequently: true })!;
      timer = setInterval(() => {
        if (!v.videoWidth) return;
        const scale = Math.min(1, widest / v.videoWidth);
        [canvas.width, canvas.height] = [v.videoWidth * scale, v.videoHeight * scale];
        pen.drawImage(v, 0, 0, canvas.width, canvas.height);
        const text = readSquare(pen.getImageData(0, 0, canvas.width, canvas.height));
        if (text && text !== last) take.current(text); // once, however long it is held
        last = text ?? last;
      }, every);
    };
    const stop = () => {
      gone = true;
      clearInterval(timer);
      stream?.getTracks().forEach((t) => t.stop());
    };
    look().catch(() => setBlind("This device gives no camera here. Type what stands under the square code."));
    return stop;
  }, []);
  return (
    <Dialog open title={label} onClose={onClose}>
      {blind ? (
        <p>{blind}</p>
      ) : (
        <video ref={video} className="w-100" muted playsInline aria-label="What the camera sees" />
      )}
      {said && (
        <div className="judged stop" role="alert">
          {said}
        </div>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (typed.trim()) take.current(typed);
        }}
      >
        <TextField label="Number on the label" value={typed} onChange={(e) => setTyped(e.target.value)} />
        <Button type="submit">Take it</Button>
      </form>
    </Dialog>
  );
}
