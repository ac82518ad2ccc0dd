import { useEffect, useState } from "react";

let audio: AudioContext | undefined;

function context(): AudioContext | undefined {
  try {
    audio ??= new AudioContext();
  } catch {
    /* a device without sound still vibrates */
  }
  return audio;
}

/** Makes sound possible; only a press of a person may do so. */
export async function openSound(): Promise<boolean> {
  const a = context();
  if (a?.state === "suspended") await a.resume();
  return a?.state === "running";
}

/** Whether a signal would be heard now. */
export function soundOpen(): boolean {
  return audio?.state === "running";
}

/** Something to hear and to feel: two tones, or five rising ones when it is urgent. */
export function signal(urgent: boolean) {
  const tones = urgent ? [660, 880, 660, 880, 990] : [660, 880];
  const a = context();
  if (a?.state === "running") {
    tones.forEach((hz, i) => {
      const tone = a.createOscillator();
      const loud = a.createGain();
      const from = a.currentTime + i * 0.22;
      tone.frequency.value = hz;
      loud.gain.setValueAtTime(0.6, from);
      loud.gain.exponentialRampToValueAtTime(0.01, from + 0.2);
      tone.connect(loud).connect(a.destination);
      tone.start(from);
      tone.stop(from + 0.2);
    });
  }
  navigator.vibrate?.(urgent ? [400, 120, 400, 120, 400] : [200, 100, 200]);
}

/** Keeps the screen on as long as it is shown; reports whether the device does so. */
export function useAwake(): boolean {
  const [awake, setAwake] = useState(false);
  useEffect(() => {
    let held: WakeLockSentinel | undefined;
    let gone = false;
    const hold = async () => {
      if (document.hidden || gone) return;
      try {
        held = await navigator.wakeLock?.request("screen");
        if (gone) await held?.release();
        else setAwake(Boolean(held));
      } catch {
        setAwake(false); // low battery, or a browser without it
      }
    };
    void hold();
    document.addEventListener("visibilitychange", hold); // a page that was hidden has lost it
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", hold);
      void held?.release();
    };
  }, []);
  return awake;
}
