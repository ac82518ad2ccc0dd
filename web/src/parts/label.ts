/** What a scanner or a camera gave: the code of a label, whether the whole address or the code alone. */
export function labelCode(text: string): string {
  const m = /\/l\/([^/?#\s]+)\s*$/.exec(text.trim());
  try {
    return m ? decodeURIComponent(m[1]!) : text.trim();
  } catch {
    return text.trim();
  }
}
