import "fake-indexeddb/auto";
import { beforeEach, describe, expect, it } from "vitest";
import { clearShelf, shelved } from "../api/device";
import type { Press } from "./model";
import { drop, isDurable, load, onPresses, presses, put } from "./store";

const press = (id: string, order: number): Press => ({
  id,
  person: "imre",
  personName: "Imre",
  kind: "fly.land",
  thing: "f1",
  at: 0,
  order,
  body: { of: id },
});

describe("the outbox of a device", () => {
  beforeEach(async () => {
    await clearShelf("presses");
    await load();
  });
  it("shows a press before it is written, and finds it after a reload", async () => {
    const written = put(press("a", 1));
    expect(presses().map((p) => p.id)).toEqual(["a"]);
    await written;
    await load();
    expect(presses()).toEqual([press("a", 1)]);
    expect(isDurable()).toBe(true);
  });
  it("keeps a press that is shown later just as soon", async () => {
    let told = 0;
    const stop = onPresses(() => told++);
    let show = () => {};
    const written = put(press("late", 9), (tell) => (show = tell));
    expect(presses().map((p) => p.id)).toEqual(["late"]);
    expect(told).toBe(0);
    await written;
    expect((await shelved<Press>("presses")).map((p) => p.id)).toEqual(["late"]);
    show();
    expect(told).toBe(1);
    stop();
  });
  it("loses nothing that is pressed while it is read", async () => {
    const reading = load();
    const written = put(press("b", 2));
    await reading;
    expect(presses().map((p) => p.id)).toEqual(["b"]);
    await written;
    expect((await shelved<Press>("presses")).map((p) => p.id)).toEqual(["b"]);
  });
  it("keeps order, replaces by id, and forgets what was taken", async () => {
    await Promise.all([put(press("c", 3)), put(press("a", 1)), put(press("b", 2))]);
    await put({ ...press("b", 2), refused: { title: "No", sentence: "No." } });
    expect(presses().map((p) => [p.id, Boolean(p.refused)])).toEqual([
      ["a", false],
      ["b", true],
      ["c", false],
    ]);
    await drop("a", "c");
    await load();
    expect(presses().map((p) => p.id)).toEqual(["b"]);
  });
  it("tells who listens, and no one else", async () => {
    let told = 0;
    const stop = onPresses(() => told++);
    await put(press("a", 1));
    expect(told).toBeGreaterThan(0);
    stop();
    const before = told;
    await put(press("b", 2));
    expect(told).toBe(before);
  });
});
