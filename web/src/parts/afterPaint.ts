/**
 * Runs something heavy once what was just set is on the screen: the key answers the finger
 * first, then its page goes. It runs in a hidden page too, and before a page that is left.
 */
export function afterPaint(run: () => void) {
  let done = false;
  const once = () => {
    if (done) return;
    done = true;
    removeEventListener("pagehide", once);
    run();
  };
  addEventListener("pagehide", once);
  requestAnimationFrame(() => setTimeout(once));
  setTimeout(once, 200); // a hidden page paints nothing
}
