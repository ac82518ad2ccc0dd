import { readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, normalize } from "node:path";
import { describe, expect, it } from "vitest";

/** Every source file with the files and folders it imports. */
const files = (readdirSync("src", { recursive: true }) as string[])
  .filter((f) => /\.tsx?$/.test(f) && !f.endsWith(".d.ts") && !f.includes(".test."))
  .filter((f) => statSync(join("src", f)).isFile());
const imports = new Map(
  files.map((f) => {
    // What is imported as a type alone is not there when the program runs.
    const text = readFileSync(join("src", f), "utf8").replace(/import type [^;]*;/g, "");
    const named = [...text.matchAll(/(?:from|import\()\s*"(\.[^"]+)"/g)].map((m) =>
      normalize(join(dirname(f), m[1]!)),
    );
    return [f, named] as const;
  }),
);
const folder = (f: string) => f.split("/")[0]!;

/** A circle in a graph, as the way round it; undefined: there is none. */
function circle(next: Map<string, Set<string>>): string[] | undefined {
  const done = new Set<string>();
  const walk = (at: string, way: string[]): string[] | undefined => {
    if (way.includes(at)) return [...way.slice(way.indexOf(at)), at];
    if (done.has(at)) return;
    for (const n of next.get(at) ?? []) {
      const found = walk(n, [...way, at]);
      if (found) return found;
    }
    done.add(at);
  };
  for (const at of next.keys()) {
    const found = walk(at, []);
    if (found) return found;
  }
}

describe("the folders of the web application", () => {
  it("have no circle among them", () => {
    const next = new Map<string, Set<string>>();
    for (const [f, named] of imports)
      for (const t of named)
        if (t.includes("/") && f.includes("/") && folder(t) !== folder(f) && folder(f) !== "app")
          next.set(folder(f), (next.get(folder(f)) ?? new Set()).add(folder(t)));
    expect(next.size).toBeGreaterThan(15);
    expect(circle(next)).toBeUndefined();
  });
  it("have no circle among their files", () => {
    const name = new Map(files.map((f) => [f.replace(/\.tsx?$/, ""), f]));
    const next = new Map<string, Set<string>>();
    for (const [f, named] of imports)
      next.set(f, new Set(named.flatMap((t) => (name.has(t) ? [name.get(t)!] : []))));
    expect(circle(next)).toBeUndefined();
  });
  it("finds a circle where there is one", () => {
    const next = new Map([
      ["a", new Set(["b"])],
      ["b", new Set(["c"])],
      ["c", new Set(["b"])],
    ]);
    expect(circle(next)).toEqual(["b", "c", "b"]);
  });
});
