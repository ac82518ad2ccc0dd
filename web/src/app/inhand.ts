/** Whether a page holds work that a new version must not break into. */
export function inHand(path: string): boolean {
  return /^\/(fly|walk|gate)\//.test(path);
}
