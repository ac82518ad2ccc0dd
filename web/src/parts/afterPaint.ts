let waiting: (() => void)[] = [];

/** Runs what waits, all of it in one go: the page changes once. */
function runAll() {
  const all = waiting;
  waiting = [];
  removeEventListener("pagehide", runAll);
  all.forEach((f) => f());
}

/**
 * Runs something heavy once what was just set is on the screen: the key answers the finger
 * first, then its page goes. It runs in a hidden page too, and before a page that is left.
 * What must not be lost is kept before, not in here.
 */
export function afterPaint(run: () => void) {
  waiting.push(run);
  if (waiting.length > 1) return;
  addEventListener("pagehide", runAll);
  requestAnimationFrame(() => setTimeout(runAll));
  setTimeout(runAll, 200); // a hidden page paints nothing
}
