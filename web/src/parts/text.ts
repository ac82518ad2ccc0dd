/** A word as it begins a line. */
export const capital = (s = "") => s.charAt(0).toUpperCase() + s.slice(1);
