import { lazy, type ComponentType } from "react";

/**
 * A view that is loaded when it is first needed, or before: once it is here it
 * is drawn with the press that opens it, and not a moment later.
 */
export function held(load: () => Promise<ComponentType>) {
  let here: ComponentType | undefined;
  const fetch = () => load().then((view) => ({ default: (here = view) }));
  const Later = lazy(fetch);
  function View() {
    const Here = here ?? Later;
    return <Here />;
  }
  View.fetch = () => void fetch().catch(() => undefined);
  return View;
}
