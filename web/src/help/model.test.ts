import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { allTerms, pageAt, pages } from "./model";
import { terms } from "../parts/words";

describe("help", () => {
  it("has a page for every place of the application", () => {
    const app = readFileSync("src/app/Ways.tsx", "utf8");
    const shown = [...app.matchAll(/<Route path="([a-z]+)/g)].map((m) => `/${m[1]}`);
    expect(shown.length).toBeGreaterThan(15);
    // Lists of Set-up, labels and pieces explain themselves.
    const plain = ["/canopies", "/cameras", "/nozzles", "/parts", "/part", "/l", "/labels"];
    for (const path of new Set(shown.filter((s) => !plain.includes(s))))
      expect(pageAt(path).at, path).toBe(path);
  });
  it("finds the page of an address, and the day where there is none", () => {
    expect(pageAt("/walk/start/1").at).toBe("/walk");
    expect(pageAt("/walking").at).toBe("/");
    expect(pageAt("/").title).toBe("The day");
  });
  it("explains every word that a page names, and no word that none does", () => {
    const used = new Set(pages.flatMap((p) => p.words));
    expect([...used].filter((w) => !terms[w])).toEqual([]);
    expect(Object.keys(terms).filter((w) => !used.has(w))).toEqual([]);
  });
  it("says each word in one sentence or two, with its source", () => {
    for (const t of allTerms()) {
      expect(t.says.length, t.word).toBeLessThan(200);
      expect(t.says, t.word).toMatch(/\.$/);
      expect(t.source, t.word).not.toBe("");
    }
  });
  it("says how in a few sentences", () => {
    for (const p of pages) {
      expect(p.how.length).toBeLessThanOrEqual(3);
      for (const h of p.how) expect(h).toMatch(/\.$/);
    }
  });
});
