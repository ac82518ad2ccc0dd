import { beforeEach, expect, it, vi } from "vitest";
import { clearDraft, keepTyped, readDraft, setDraftOwner, writeDraft } from "./drafts";

beforeEach(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal("localStorage", {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
    removeItem: (k: string) => void kept.delete(k),
  });
});

it("keeps what one person typed from the next on the same device", () => {
  setDraftOwner("odile");
  writeDraft("log", { remarks: "rough" });
  setDraftOwner("bao");
  expect(readDraft("log")).toBeUndefined();
  writeDraft("log", { remarks: "smooth" });
  clearDraft("log");
  setDraftOwner("odile");
  expect(readDraft("log")).toEqual({ remarks: "rough" });
});

it("does without a store", () => {
  vi.stubGlobal("localStorage", undefined);
  writeDraft("log", {});
  clearDraft("log");
  expect(readDraft("log")).toBeUndefined();
});

it("keeps only what was typed, so that a draft that was left does not bring back what others changed since", () => {
  setDraftOwner("odile");
  const opened = { name: "Cable", quantity: "4", colours: ["red"], pin: "" };
  keepTyped("stock", opened, { ...opened, name: "Cable, thick", pin: "1470" }, ["pin"]);
  expect({ ...opened, quantity: "2", ...readDraft("stock") }).toEqual({
    ...opened,
    name: "Cable, thick",
    quantity: "2",
  });
  keepTyped("stock", opened, { ...opened, colours: ["red", "blue"] });
  expect(readDraft("stock")).toEqual({ colours: ["red", "blue"] });
  keepTyped("stock", opened, { ...opened, name: "" });
  expect(readDraft("stock")).toEqual({ name: "" });
  keepTyped("stock", opened, opened);
  expect(readDraft("stock")).toBeUndefined();
});
