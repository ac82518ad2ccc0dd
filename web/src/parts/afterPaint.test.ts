import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { afterPaint } from "./afterPaint";

describe("after the paint", () => {
  const frames: (() => void)[] = [];
  const page = new EventTarget();
  beforeEach(() => {
    vi.useFakeTimers();
    frames.length = 0;
    vi.stubGlobal("requestAnimationFrame", (f: () => void) => frames.push(f));
    vi.stubGlobal("addEventListener", page.addEventListener.bind(page));
    vi.stubGlobal("removeEventListener", page.removeEventListener.bind(page));
  });
  afterEach(() => {
    vi.runAllTimers();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("runs once, behind the frame that shows the answer, all that waits in its order", () => {
    const ran: number[] = [];
    afterPaint(() => ran.push(1));
    afterPaint(() => ran.push(2));
    expect(ran).toEqual([]);
    frames.forEach((f) => f());
    vi.advanceTimersByTime(0);
    expect(ran).toEqual([1, 2]);
    vi.runAllTimers();
    expect(ran).toEqual([1, 2]);
  });
  it("runs in a page that is never painted", () => {
    const run = vi.fn();
    afterPaint(run);
    vi.advanceTimersByTime(200);
    expect(run).toHaveBeenCalledTimes(1);
  });
  it("runs before a page is left, and not again", () => {
    const run = vi.fn();
    afterPaint(run);
    page.dispatchEvent(new Event("pagehide"));
    expect(run).toHaveBeenCalledTimes(1);
    frames.forEach((f) => f());
    vi.runAllTimers();
    page.dispatchEvent(new Event("pagehide"));
    expect(run).toHaveBeenCalledTimes(1);
  });
  it("runs what is set while it runs, later", () => {
    const later = vi.fn();
    afterPaint(() => afterPaint(later));
    vi.advanceTimersByTime(200);
    expect(later).not.toHaveBeenCalled();
    vi.advanceTimersByTime(200);
    expect(later).toHaveBeenCalledTimes(1);
  });
});
