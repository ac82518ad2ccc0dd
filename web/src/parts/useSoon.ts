import { useEffect, useState } from "react";

/** A value a moment after it last changed, so that a moved slider asks once for each rest of the hand. */
export function useSoon<T>(value: T, ms = 60): T {
  const [soon, set] = useState(value);
  const key = JSON.stringify(value);
  useEffect(() => {
    const t = setTimeout(() => set(JSON.parse(key) as T), ms);
    return () => clearTimeout(t);
  }, [key, ms]);
  return soon;
}
