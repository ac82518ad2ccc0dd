/** A sign-in name to begin with: the first name, in the letters that sign-in names have. */
export function loginOf(name: string): string {
  const first = name.trim().split(/\s+/)[0] ?? "";
  const plain = first
    .normalize("NFD")
    .replace(/[^A-Za-z0-9]/g, "")
    .toLowerCase();
  return plain.length < 2 ? "" : plain.slice(0, 40);
}
