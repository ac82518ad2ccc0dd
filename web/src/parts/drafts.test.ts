import { beforeEach, expect, it, vi } from "vitest";
import { clearDraft, readDraft, setDraftOwner, writeDraft } from "./drafts";

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
